import { addWords } from './addWords';
import { runningEn } from './running.en';
import { runningPt } from './running.pt';

addWords('running', { en: runningEn, pt: runningPt });
