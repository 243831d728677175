export { findByLetters, findUnknownBlanks, READY_BLANKS, type ReadyBlank } from './readyTexts';
