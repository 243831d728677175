import { addWords } from './addWords';
import { mailEn } from './mail.en';
import { mailPt } from './mail.pt';

export function addMailWords(): void {
  addWords('mail', { en: mailEn, pt: mailPt });
}
