import { addWords } from './addWords';
import { assistantEn } from './assistant.en';
import { assistantPt } from './assistant.pt';

addWords('assistant', { en: assistantEn, pt: assistantPt });
