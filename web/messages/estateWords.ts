import { addWords } from './addWords';
import { estateEn } from './estate.en';
import { estatePt } from './estate.pt';

addWords('estate', { en: estateEn, pt: estatePt });
