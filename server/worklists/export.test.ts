import ExcelJS from 'exceljs';
import Papa from 'papaparse';
import { startTestListo, type Person, type TestListo } from '../testing/harness';

let app: TestListo;
let [tomas, rui]: Person[] = [];
const TITLES = [
  'Plain',
  'With, comma',
  'With "quotes"',
  'Two\nlines',
  '=HYPERLINK("x")',
  'Baía Longa ✓ 😀',
  ' blanks ',
];
beforeAll(async () => {
  app = await startTestListo('export');
  [tomas, rui] = await Promise.all(['tomas', 'rui'].map(app.as));
  const answers = { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'slowsWork' };
  for (let i = 0; i < 230; i++)
    await tomas!.call('POST', '/tickets', { serviceId: 'kiosk', title: TITLES[i] ?? `Ticket ${i}`, answers });
});
afterAll(() => app.end());

test('CSV by RFC 4180: a reference parser reads back every cell, over several pages', async () => {
  const { status, headers, body } = await rui!.call('GET', '/worklists/everything/export?format=csv');
  expect(status).toBe(200);
  expect(headers.get('Content-Disposition')).toContain('listo-everything.csv');
  const text = (body as string).replace(/^\uFEFF/, '');
  expect(text.endsWith('\r\n')).toBe(true);
  const { data, errors } = Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true });
  expect(errors).toEqual([]);
  expect(data).toHaveLength(230);
  const titles = data.map(({ title }) => title!).reverse();
  // What a spreadsheet would run as a formula has a mark before it.
  expect(titles.slice(0, TITLES.length)).toEqual(
    TITLES.map((title) => (title.startsWith('=') ? `'${title}` : title)),
  );
  expect(new Date(data[0]!.createdAt!).getTime()).toBeGreaterThan(0);
});

test('a workbook with the same rows; only what one may see, only who works at the Desk', async () => {
  const where = encodeURIComponent(JSON.stringify({ field: 'title', op: 'contains', value: 'ticket 22' }));
  const response = await fetch(`${app.url}/api/v1/worklists/teams/export?format=xlsx&where=${where}`, {
    headers: { Cookie: await cookieOf('rui') },
  });
  const book = new ExcelJS.Workbook();
  await book.xlsx.load(await response.arrayBuffer());
  const sheet = book.getWorksheet('Listo')!;
  // Ticket 22, and 220 to 229, below the names of the columns.
  expect(sheet.rowCount).toBe(12);
  expect(sheet.getRow(1).getCell(4).value).toBe('title');
  expect((await tomas!.call('GET', '/worklists/everything/export')).status).toBe(403);
  expect((await rui!.call('GET', '/worklists/nowhere/export')).status).toBe(404);
});

async function cookieOf(personId: string): Promise<string> {
  const signedIn = await fetch(`${app.url}/api/v1/session/demo`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ personId }),
  });
  return signedIn.headers.getSetCookie()[0]!.split(';')[0]!;
}
