import { addWords } from './addWords';
import { movingEn } from './moving.en';
import { movingPt } from './moving.pt';

addWords('moving', { en: movingEn, pt: movingPt });
