import { CsvError, parse } from 'csv-parse';
import { readFile } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { ProblemError } from '../http/problems';
import { decode } from './decode';

/** So many bytes are read between two looks at what else there is to do. */
const AT_ONCE = 32_768;

function* inParts(text: string): Generator<Buffer> {
  const bytes = Buffer.from(text);
  for (let at = 0; at < bytes.length; at += AT_ONCE) yield bytes.subarray(at, at + AT_ONCE);
}

export type TableRow = { line: number; cells: string[] };

/**
 * The rows of a table by RFC 4180, headings first; rows may be shorter or longer than the headings.
 * @throws ProblemError tableNotRead, with the line, where quotes do not fit
 */
export async function* readRows(file: string, delimiter: string): AsyncGenerator<TableRow> {
  const { text } = decode(await readFile(file));
  // Within quotes the parser counts a line's end of two letters twice.
  const parts = Readable.from(inParts(text.replaceAll('\r\n', '\n')));
  const parser = parse({
    ...{ delimiter, relax_column_count: true, skip_empty_lines: true, info: true },
  });
  const rows = parts.pipe(parser);
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
