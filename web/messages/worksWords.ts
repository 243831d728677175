import { addWords } from './addWords';
import { worksEn } from './works.en';
import { worksPt } from './works.pt';

addWords('works', { en: worksEn, pt: worksPt });
