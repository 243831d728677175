import { addWords } from './addWords';
import { setupEn } from './setup.en';
import { setupPt } from './setup.pt';

addWords('setup', { en: setupEn, pt: setupPt });
