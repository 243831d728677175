import { ProblemError } from '../http/problems';

/** Begins every file of the ZIP format, and so every workbook of ECMA-376. */
const ZIP = Buffer.from('PK\u0003\u0004');
/** Begins an entry of the list of contents of a ZIP file (APPNOTE 4.3.12); its unpacked size stands so far in. */
const CONTENTS_ENTRY = Buffer.from('PK\u0001\u0002');
const UNPACKED_AT = 24;
const MOST_BYTES = 16_000_000;
const MOST_UNPACKED = 200_000_000;

export const isWorkbook = (bytes: Buffer): boolean => bytes.subarray(0, ZIP.length).equals(ZIP);

/** How large all of a ZIP file would be unpacked, as its list of contents says. */
function unpackedSize(bytes: Buffer): number {
  let sum = 0;
  for (let at = bytes.indexOf(CONTENTS_ENTRY); at !== -1; at = bytes.indexOf(CONTENTS_ENTRY, at + 4))
    if (at + UNPACKED_AT + 4 <= bytes.length) sum += bytes.readUInt32LE(at + UNPACKED_AT);
  return sum;
}

/**
 * The first sheet of a workbook (XLSX) as CSV, to be read like any other table. Days are written as in ISO 8601.
 * @throws ProblemError tableTooLong, tableNotRead, fileEmpty
 */
export async function workbookToCsv(bytes: Buffer): Promise<Buffer> {
  if (bytes.length > MOST_BYTES || unpackedSize(bytes) > MOST_UNPACKED)
    throw new ProblemError('tableTooLong');
  const { default: ExcelJS } = await import('exceljs');
  const workbook = new ExcelJS.Workbook();
  try {
    await workbook.xlsx.load(bytes as never);
  } catch {
    throw new ProblemError('tableNotRead', { facts: { line: 0 } });
  }
  const sheet = workbook.worksheets[0];
  if (!sheet) throw new ProblemError('fileEmpty');
  const csv = await workbook.csv.writeBuffer({
    ...{ sheetId: sheet.id, dateFormat: 'YYYY-MM-DD', dateUTC: true, includeEmptyRows: false },
  });
  return Buffer.from(csv);
}
