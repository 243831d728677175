import { listHolidayPlaces, listHolidays } from './holidays';

const datesOf = (country: string, region: string | undefined, year: number): string[] =>
  listHolidays({ country, region, year, years: 1 }, 'en').map(({ date }) => date.slice(5));

/**
 * Portugal: the mandatory holidays of the Labour Code (Código do Trabalho, art. 234, n. 1), with the movable feasts
 * (Good Friday, Easter, Corpus Christi) of each year. Written down from memory.
 */
const PORTUGAL: Record<number, string[]> = {
  2022: ['04-15', '04-17', '06-16'],
  2023: ['04-07', '04-09', '06-08'],
  2024: ['03-29', '03-31', '05-30'],
  2025: ['04-18', '04-20', '06-19'],
  2026: ['04-03', '04-05', '06-04'],
};
const FIXED = ['01-01', '04-25', '05-01', '06-10', '08-15', '10-05', '11-01', '12-01', '12-08', '12-25'];

test.each(Object.entries(PORTUGAL))('Portugal in %s, as its Labour Code lists them', (year, movable) => {
  expect(datesOf('PT', undefined, Number(year))).toEqual([...FIXED, ...movable].sort());
});

/** England and Wales: the bank holidays as published at gov.uk/bank-holidays. Written down from memory. */
const ENGLAND: Record<number, string[]> = {
  2022: ['01-03', '04-15', '04-18', '05-02', '06-02', '06-03', '08-29', '09-19', '12-26', '12-27'],
  2023: ['01-02', '04-07', '04-10', '05-01', '05-08', '05-29', '08-28', '12-25', '12-26'],
  2024: ['01-01', '03-29', '04-01', '05-06', '05-27', '08-26', '12-25', '12-26'],
  2025: ['01-01', '04-18', '04-21', '05-05', '05-26', '08-25', '12-25', '12-26'],
  2026: ['01-01', '04-03', '04-06', '05-04', '05-25', '08-31', '12-25', '12-28'],
};

test.each(Object.entries(ENGLAND))('England and Wales in %s, as published', (year, published) => {
  const weekdays = datesOf('GB', 'ENG', Number(year)).filter((date) => {
    const day = new Date(`${year}-${date}T00:00Z`).getUTCDay();
    return day !== 0 && day !== 6;
  });
  expect(weekdays).toEqual(published);
});

test('countries are offered with their regions, in the language of the reader', () => {
  const places = listHolidayPlaces('pt');
  expect(places.find(({ id }) => id === 'DE')?.regions.map(({ name }) => name)).toContain('Bayern');
  expect(places.length).toBeGreaterThan(100);
});
