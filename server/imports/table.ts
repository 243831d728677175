import { CsvError, parse } from 'csv-parse';
import { readFile } from 'node:fs/promises';
import { ProblemError } from '../http/problems';
import { decode } from './decode';

export type TableRow = { line: number; cells: string[] };

/**
 * The rows of a table by RFC 4180, headings first; rows may be shorter or longer than the headings.
 * @throws ProblemError tableNotRead, with the line, where quotes do not fit
 */
export async function* readRows(file: string, delimiter: string): AsyncGenerator<TableRow> {
  const { text } = decode(await readFile(file));
  // Within quotes the parser counts a line's end of two letters twice.
  const rows = parse(text.replaceAll('\r\n', '\n'), {
    ...{ delimiter, relax_column_count: true, skip_empty_lines: true, info: true },
  });
  try {
    let line = 1;
    for await (const { record, info } of rows as AsyncIterable<{
      record: string[];
      info: { lines: number };
    }>) {
      yield { line, cells: record };
      line = info.lines + 1;
    }
  } catch (error) {
    if (!(error instanceof CsvError)) throw error;
    throw new ProblemError('tableNotRead', { facts: { line: Number(error.lines ?? 0) } });
  }
}
