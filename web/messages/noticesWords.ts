import { addWords } from './addWords';
import { noticesEn } from './notices.en';
import { noticesPt } from './notices.pt';

addWords('notices', { en: noticesEn, pt: noticesPt });
