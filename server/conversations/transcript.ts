import { createRequire } from 'node:module';
import { LOCALES, type Language } from '../../core/forms';
import type { Listo } from '../listo';
import { fileIdsOf } from './files';
import type { ConversationRow } from './model';

/** What was said to both, a line each: who, when, what. */
export async function readTranscript(
  listo: Listo,
  { id, personId }: Pick<ConversationRow, 'id' | 'personId'>,
  language: Language,
): Promise<string> {
  const rows = await listo.db.select<{
    at: number;
    text: string;
    name: string | null;
    data: Record<string, unknown>;
  }>(
    `SELECT e.at, e.text, e.data, p.name FROM conversation_entries e LEFT JOIN people p ON p.id = e.authorId
     WHERE e.conversationId = :id AND e.type = 'words' AND e.readBy = 'all' ORDER BY e.place`,
    { id },
  );
  const [site] = await listo.db.select<{ timeZone: string }>(
    'SELECT s.timeZone FROM people p JOIN sites s ON s.id = p.siteId WHERE p.id = :personId',
    { personId },
  );
  const files = await listo.db.tables.files.find({ conversationId: id });
  const format = new Intl.DateTimeFormat(LOCALES[language], {
    ...{
      day: '2-digit',
      month: '2-digit',
      year: 'numeric',
      hour: '2-digit',
      minute: '2-digit',
      hourCycle: 'h23',
    },
    timeZone: site?.timeZone ?? 'UTC',
  });
  return rows
    .map((row) => {
      const named = files
        .filter(({ id: fileId }) => fileIdsOf(row).includes(fileId))
        .map(({ name }) => `[${name}]`);
      return `${format.format(row.at)}  ${row.name ?? 'Listo'}: ${[row.text, ...named].filter(Boolean).join(' ')}`;
    })
    .join('\n');
}

/** The font of the application as a file that PDF can carry: every letter that people write here. */
const FONT = createRequire(import.meta.url).resolve(
  '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff',
);

/** The same as a PDF. */
export async function writePdf(title: string, text: string): Promise<Buffer> {
  // Large, and seldom wanted.
  const { default: PDFDocument } = await import('pdfkit');
  return new Promise((resolve, reject) => {
    const document = new PDFDocument({ size: 'A4', margin: 56, info: { Title: title } });
    const chunks: Buffer[] = [];
    document.on('data', (chunk: Buffer) => chunks.push(chunk));
    document.on('end', () => resolve(Buffer.concat(chunks)));
    document.on('error', reject);
    document.font(FONT).fontSize(15).text(title).moveDown();
    document.fontSize(10.5).text(text, { lineGap: 3 });
    document.end();
  });
}
