import { addWords } from './addWords';
import { talkEn } from './talk.en';
import { talkPt } from './talk.pt';

addWords('talk', { en: talkEn, pt: talkPt });
