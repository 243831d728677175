export { guessDelimiter } from './delimiter';
export { cellOf, guessByNames, type MappingOf } from './mapping';
export {
  chooseByName,
  guessMapping,
  IMPORT_FIELDS,
  NEEDED_FIELDS,
  readRow,
  type ImportedTicket,
  type ImportField,
  type Lookups,
  type Mapping,
  type RowProblem,
} from './rows';
