import Holidays from 'date-holidays';

type Place = { id: string; name: string };
const LANGUAGES = ['en', 'pt'];

function toPlaces(names: Record<string, string> | undefined): Place[] {
  return Object.entries(names ?? {})
    .map(([id, name]) => ({ id, name }))
    .sort((a, b) => a.name.localeCompare(b.name));
}

/** Countries with their regions, by the general library of public holidays. */
export function listHolidayPlaces(language: string): (Place & { regions: Place[] })[] {
  const holidays = new Holidays();
  return toPlaces(holidays.getCountries(language)).map((country) => ({
    ...country,
    regions: toPlaces(holidays.getStates(country.id, language)),
  }));
}

/** Public holidays of some years, one a date, in the order of their dates. */
export function listHolidays(
  {
    country,
    region,
    year,
    years,
  }: { country: string; region?: string | undefined; year: number; years: number },
  language: string,
): { date: string; name: string }[] {
  const languages = [language, ...LANGUAGES];
  const holidays = region
    ? new Holidays(country, region, { languages })
    : new Holidays(country, { languages });
  const byDate = new Map<string, string>();
  for (let each = year; each < year + years; each++)
    for (const { date, name, type } of holidays.getHolidays(each)) {
      const day = date.slice(0, 10);
      if (type === 'public' && !byDate.has(day)) byDate.set(day, name);
    }
  return [...byDate].map(([date, name]) => ({ date, name })).sort((a, b) => (a.date < b.date ? -1 : 1));
}
