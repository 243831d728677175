/** What spreadsheets run where a cell begins with it, after blanks and marks that nobody sees; also in full width. */
const FORMULA = /^[\s\u00a0\u200b-\u200f\u202a-\u202e\u2060\ufeff]*[=+\-@\uff1d\uff0b\uff0d\uff20]/u;

/** Text that a spreadsheet would run as a formula is shown as text. @example harmless('=1+1') // "'=1+1" */
export function harmless<T>(cell: T): T | string {
  return typeof cell === 'string' && (FORMULA.test(cell) || /^[\t\r\n]/.test(cell)) ? `'${cell}` : cell;
}

/** Cells that hold a sign by which some programs part cells are quoted, beside what RFC 4180 quotes. */
export const QUOTED = { quoted_match: /[;\t]/ };
