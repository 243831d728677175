import { addWords } from './addWords';
import { todayEn } from './today.en';
import { todayPt } from './today.pt';

addWords('today', { en: todayEn, pt: todayPt });
