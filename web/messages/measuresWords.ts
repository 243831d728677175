import { addWords } from './addWords';
import { measuresEn } from './measures.en';
import { measuresPt } from './measures.pt';

addWords('measures', { en: measuresEn, pt: measuresPt });
