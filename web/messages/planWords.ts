import { addWords } from './addWords';
import { planEn } from './plan.en';
import { planPt } from './plan.pt';

addWords('plan', { en: planEn, pt: planPt });
