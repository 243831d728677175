import { addWords } from './addWords';
import { programsEn } from './programs.en';
import { programsPt } from './programs.pt';

addWords('programs', { en: programsEn, pt: programsPt });
