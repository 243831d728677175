export { asItWas } from './asItWas';
export type { Changed, Facts } from './asItWas';
export { toLine } from './line';
export type { AuditEntry } from './line';
export { escapeValue, toFrame, toSyslog } from './syslog';
