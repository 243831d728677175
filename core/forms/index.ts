export { completeText } from './complete';
export {
  checkAnswers,
  getShownFields,
  isNeeded,
  isWebAddress,
  listMissing,
  listPages,
  LONG_TEXT_LIMIT,
  ROWS_LIMIT,
  isDate,
  withFiles,
  withoutFiles,
  TEXT_LIMIT,
} from './checkAnswers';
export type { AnswerProblem, AnswerProblemCode } from './checkAnswers';
export { checkForm, isFieldName } from './checkForm';
export type { FormProblem, FormProblemCode } from './checkForm';
export { fillIn } from './fillIn';
export { fromJsonSchema } from './fromJsonSchema';
export type { Imported, ImportProblem } from './fromJsonSchema';
export { carryAnswers } from './carryAnswers';
export { sayAnswer, sayDay } from './sayAnswer';
export { conditionToSchema, toJsonSchema } from './toJsonSchema';
export type { FormExport, JsonSchema } from './toJsonSchema';
export { COLUMN_KINDS, FIELD_KINDS, KNOWN_FACTS, LANGUAGES, LOCALES } from './types';
export type {
  AnswerLink,
  Answers,
  AnswerValue,
  Choice,
  Column,
  ColumnKind,
  DateRange,
  FieldKind,
  FormDefinition,
  FormField,
  KnownFact,
  KnownFacts,
  Language,
  LocalText,
  Named,
  TableRow,
} from './types';
