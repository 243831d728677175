export { findSensitive, passesIban, passesLuhn, strikeOut, type Sensitive } from './sensitive';
export { eraseEntry, eraseValue, TOMBSTONE } from './tombstone';
