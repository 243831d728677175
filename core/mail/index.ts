export { readProof, type Proof } from './authentication';
export { isAutomatic, type MailHeaders } from './isAutomatic';
export { readSolved } from './readSolved';
export { readDecision, type MailDecision } from './readDecision';
export { DEFAULT_MAIL_TEXTS, MAIL_BLANKS, MAIL_TEMPLATES, toHtml, writeMail } from './templates';
export type { MailBlanks, MailTemplate, MailText, MailTexts } from './templates';
export { ANSWER_ABOVE, trimReply } from './trimReply';
