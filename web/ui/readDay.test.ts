import fc from 'fast-check';
import { readDay } from './readDay';

/** Days as people type them; the day comes before the month, whatever the browser thinks. */
test.each([
  ['2026-12-24', '2026-12-24'],
  ['24.12.2026', '2026-12-24'],
  ['4/3/26', '2026-03-04'],
  ['24 12 2026', '2026-12-24'],
  ['24.12.', '2026-12-24'],
  // Without a year it is the nearest: in November the second of January is to come, the first of October has been.
  ['2/1', '2027-01-02'],
  ['1/10', '2026-10-01'],
  ['24 Dec', '2026-12-24'],
  ['24 december 2027', '2027-12-24'],
  ['29/2', '2028-02-29'],
])('%s is %s', (typed, day) => {
  const today = typed === '29/2' ? '2027-11-30' : '2026-11-30';
  expect(readDay(typed, { language: 'en', today })).toBe(day);
});

test.each([
  ['24 de dezembro de 2026', '2026-12-24'],
  ['1 de março', '2027-03-01'],
  ['1 mar', '2027-03-01'],
])('in Portuguese %s is %s', (typed, day) => {
  expect(readDay(typed, { language: 'pt', today: '2026-11-30' })).toBe(day);
});

test.each(['', '24', '24.', 'soon', '31.2.2026', '12/24/2026', '24 J', '24 Foo 2026', '2026-13-01'])(
  '%p is no day',
  (typed) => {
    expect(readDay(typed, { language: 'en', today: '2026-11-30' })).toBeNull();
  },
);

test('law: what a field shows of a day is read as that day again', () => {
  const days = fc.date({ min: new Date('2000-01-01'), max: new Date('2099-12-31'), noInvalidDate: true });
  fc.assert(
    fc.property(days, fc.constantFrom('en' as const, 'pt' as const), (at, language) => {
      const day = at.toISOString().slice(0, 10);
      const [year, month, date] = day.split('-');
      const read = (text: string): string | null => readDay(text, { language, today: '2026-11-30' });
      expect(read(`${date}/${month}/${year}`)).toBe(day);
      const name = new Intl.DateTimeFormat(language, { month: 'short', timeZone: 'UTC' }).format(at);
      expect(read(`${Number(date)} ${name} ${year}`)).toBe(day);
    }),
  );
});
