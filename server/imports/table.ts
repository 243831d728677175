import { CsvError, parse } from 'csv-parse';
import { readFile } from 'node:fs/promises';
import { setImmediate } from 'node:timers/promises';
import { Readable } from 'node:stream';
import { ProblemError } from '../http/problems';
import { decode } from './decode';

/** So many bytes are read between two looks at what else there is to do. */
const AT_ONCE = 32_768;

/**
 * A text in parts, with its lines ended by one letter: within quotes the parser counts an end of two twice. Between two
 * parts others are answered.
 */
async function* inParts(text: string): AsyncGenerator<Buffer> {
  for (let at = 0; at < text.length;) {
    let end = Math.min(text.length, at + AT_ONCE);
    // A pair of letters that belong together is not parted.
    while (end < text.length && /[\r\uD800-\uDBFF]/.test(text[end - 1]!)) end++;
    yield Buffer.from(text.slice(at, end).replaceAll('\r\n', '\n'));
    at = end;
    await setImmediate();
  }
}

/** A record longer than this is none: mostly a quote that is never closed. */
const LONGEST_RECORD = 1_000_000;
/** Lines and cells of one table: 200,000 rows of 60 cells, most of them with line breaks of their own. */
const MOST_LINES = 3_000_000;
const MOST_CELLS = 12_000_000;
const MOST_COLUMNS = 300;
/** Cells of one line, quoted or not: the time to read a line grows by their square. */
const MOST_IN_LINE = 20_000;
const LINE_END = 10;
/** Comma, semicolon, tabulator, bar. */
const DELIMITERS = new Set([44, 59, 9, 124]);

/**
 * Refuses what would take far longer to read than any table does: its lines and its cells are counted, a byte at a time,
 * before anything is read.
 * @throws ProblemError tableTooLong
 */
export function refuseEndless(bytes: Uint8Array): void {
  let lines = 0;
  let cells = 0;
  let inLine = 0;
  for (const byte of bytes) {
    if (byte === LINE_END) {
      lines++;
      inLine = 0;
    } else if (DELIMITERS.has(byte)) {
      cells++;
      inLine++;
    } else continue;
    if (lines > MOST_LINES || cells > MOST_CELLS || inLine > MOST_IN_LINE)
      throw new ProblemError('tableTooLong');
  }
}

export type TableRow = { line: number; cells: string[] };

/**
 * The rows of a table by RFC 4180, headings first; rows may be shorter or longer than the headings.
 * @throws ProblemError tableNotRead, with the line, where quotes do not fit
 */
export async function* readRows(file: string, delimiter: string): AsyncGenerator<TableRow> {
  yield* rowsOf(decode(await readFile(file)).text, delimiter);
}

/** The rows below the headings. */
export async function* rowsWithoutHeadings(file: string, delimiter: string): AsyncGenerator<TableRow> {
  let isHeading = true;
  for await (const row of readRows(file, delimiter)) {
    if (!isHeading) yield row;
    isHeading = false;
  }
}

/** The same of a text. @throws ProblemError tableNotRead, tableTooLong */
export async function* rowsOf(text: string, delimiter: string): AsyncGenerator<TableRow> {
  const parts = Readable.from(inParts(text));
  const parser = parse({
    ...{ delimiter, relax_column_count: true, skip_empty_lines: true, info: true },
    max_record_size: LONGEST_RECORD,
  });
  const rows = parts.pipe(parser);
  try {
    let line = 1;
    for await (const { record, info } of rows as AsyncIterable<{
      record: string[];
      info: { lines: number };
    }>) {
      if (record.length > MOST_COLUMNS) throw new ProblemError('tableTooLong');
      yield { line, cells: record };
      line = info.lines + 1;
    }
  } catch (error) {
    if (!(error instanceof CsvError)) throw error;
    throw new ProblemError('tableNotRead', { facts: { line: Number(error.lines ?? 0) } });
  }
}
