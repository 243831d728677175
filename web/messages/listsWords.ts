import { addWords } from './addWords';
import { deskWordsEn } from './desk.en';
import { deskWordsPt } from './desk.pt';
import { listsEn } from './lists.en';
import { listsPt } from './lists.pt';

addWords('lists', { en: listsEn, pt: listsPt });
for (const part of ['bulk', 'raise', 'ready', 'spent', 'surge', 'together'] as const)
  addWords(part, { en: deskWordsEn[part], pt: deskWordsPt[part] });
