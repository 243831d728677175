import { addWords } from './addWords';
import { signOnEn } from './signOn.en';
import { signOnPt } from './signOn.pt';

addWords('signOn', { en: signOnEn, pt: signOnPt });
