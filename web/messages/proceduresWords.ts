import { addWords } from './addWords';
import { proceduresEn } from './procedures.en';
import { proceduresPt } from './procedures.pt';

addWords('procedures', { en: proceduresEn, pt: proceduresPt });
