export * from './article';
export { groupQuestions, type Question, type QuestionGroup } from './asked';
export { rankByNeed, wilsonLower, wilsonUpper, type Fared } from './helped';
export { listPictures } from './listPictures';
export { toPlainText } from './plainText';
export { withoutPersons } from './withoutPersons';
