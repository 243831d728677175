import { addWords } from './addWords';
import { recordsEn } from './records.en';
import { recordsPt } from './records.pt';

addWords('records', { en: recordsEn, pt: recordsPt });
