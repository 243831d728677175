import { addWords } from './addWords';
import { causesEn } from './causes.en';
import { causesPt } from './causes.pt';

addWords('causes', { en: causesEn, pt: causesPt });
