import { stringify } from 'csv-stringify/sync';
import { harmless, QUOTED } from './csv';

test.each([
  '=1+1',
  '+1',
  '-1',
  '@a',
  '\t=1',
  ' =1',
  '\ufeff=1',
  '＝1',
  '＋1',
  '－1',
  '＠a',
  '\u200b=1',
  '\r=1',
  '\n@a',
])('%j is shown as text', (cell) => expect(harmless(cell)).toBe(`'${cell}`));
test.each(['Kiosk 3', 'a=b', '3 - 4', 7, null])('%j stays as it is', (cell) =>
  expect(harmless(cell)).toBe(cell),
);
test('what some programs part cells by is quoted', () =>
  expect(stringify([['a;b', 'c', 'd,e']], QUOTED)).toBe('"a;b",c,"d,e"\n'));
