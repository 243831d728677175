import { parseRule } from './recur';

/** What can be wrong with an iCalendar file, by code. */
export type ICalendarFault =
  | 'notACalendar'
  | 'notALine'
  | 'notClosed'
  | 'closesAnother'
  | 'badDate'
  | 'badRule'
  | 'unknownZone'
  | 'noStart'
  | 'tooMuch';

/** A file that is not iCalendar (RFC 5545): which line, and what is wrong with it. */
export class ICalendarError extends Error {
  constructor(
    readonly line: number,
    readonly fault: ICalendarFault,
    readonly text: string,
  ) {
    super(`line ${line}: ${fault}: ${text.slice(0, 60)}`);
    this.name = 'ICalendarError';
  }
}

/** A content line with the folding undone (RFC 5545, 3.1) and the number of the physical line it begins on. */
export type ContentLine = { line: number; text: string };

const CONTENT = /^[A-Za-z0-9-]+(?:;[A-Za-z0-9-]+=(?:"[^"]*"|[^";:,]*)(?:,(?:"[^"]*"|[^";:,]*))*)*:/;
const DATE = /^(\d{4})(\d\d)(\d\d)(?:T(\d\d)(\d\d)(\d\d)Z?)?$/;
const DATED = /^(DTSTART|DTEND|EXDATE|RDATE|RECURRENCE-ID|DUE)[;:]/i;

function unfold(text: string): ContentLine[] {
  const lines: ContentLine[] = [];
  text.split(/\r\n|\n|\r/).forEach((raw, i) => {
    const last = lines.at(-1);
    if (/^[ \t]/.test(raw) && last) last.text += raw.slice(1);
    else if (raw !== '') lines.push({ line: i + 1, text: raw });
  });
  return lines;
}

function isDate(text: string): boolean {
  const match = DATE.exec(text);
  if (!match) return false;
  const numbers = match.slice(1).map((part: string | undefined) => Number(part ?? 0));
  const [year, month, day, hour, minute, second] = numbers as [
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  const real = new Date(Date.UTC(year, month - 1, day));
  return (
    real.getUTCMonth() === month - 1 && real.getUTCDate() === day && hour < 24 && minute < 60 && second <= 60
  );
}

function checkValue({ line, text }: ContentLine): void {
  const value = text.slice(text.indexOf(':') + 1);
  if (DATED.test(text) && !/VALUE=PERIOD/i.test(text)) {
    // A quoted parameter may hold a colon, so the value is what follows the last one.
    for (const date of value.slice(value.lastIndexOf(':') + 1).split(','))
      if (!isDate(date)) throw new ICalendarError(line, 'badDate', text);
  }
  if (/^(?:RRULE|EXRULE)[;:]/i.test(text)) {
    try {
      parseRule(value);
    } catch {
      throw new ICalendarError(line, 'badRule', text);
    }
  }
}

/**
 * The content lines of an iCalendar file, each judged by the grammar, components properly nested.
 * @throws ICalendarError for the first line that is wrong
 */
export function readLines(text: string): ContentLine[] {
  const lines = unfold(text.replace(/^\uFEFF/, ''));
  if (lines[0]?.text.toUpperCase() !== 'BEGIN:VCALENDAR')
    throw new ICalendarError(lines[0]?.line ?? 1, 'notACalendar', lines[0]?.text ?? '');
  const open: ContentLine[] = [];
  for (const each of lines) {
    if (!CONTENT.test(each.text)) throw new ICalendarError(each.line, 'notALine', each.text);
    const [word, component] = each.text.toUpperCase().split(':');
    if (word === 'BEGIN') open.push({ ...each, text: component! });
    else if (word === 'END') {
      if (open.pop()?.text !== component) throw new ICalendarError(each.line, 'closesAnother', each.text);
    } else checkValue(each);
  }
  const unclosed = open.at(-1);
  if (unclosed) throw new ICalendarError(unclosed.line, 'notClosed', unclosed.text);
  return lines;
}
