export { checkAnswers, getShownFields, isWebAddress, LONG_TEXT_LIMIT, TEXT_LIMIT } from './checkAnswers';
export type { AnswerProblem, AnswerProblemCode } from './checkAnswers';
export { fillIn } from './fillIn';
export { FIELD_KINDS, KNOWN_FACTS, LANGUAGES } from './types';
export type {
  AnswerLink,
  Answers,
  AnswerValue,
  FieldKind,
  FormDefinition,
  FormField,
  KnownFact,
  KnownFacts,
  Language,
  LocalText,
} from './types';
