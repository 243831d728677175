import { addWords } from './addWords';
import { bulkEn } from './bulk.en';
import { bulkPt } from './bulk.pt';
import { listsEn } from './lists.en';
import { listsPt } from './lists.pt';

addWords('lists', { en: listsEn, pt: listsPt });
for (const part of ['bulk', 'ready', 'together'] as const)
  addWords(part, { en: bulkEn[part], pt: bulkPt[part] });
