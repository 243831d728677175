/** How often a rule that goes by time comes back, as it is chosen. */
export const RHYTHMS = ['DAILY', 'WEEKDAYS', 'MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU', 'MONTHLY'] as const;
export type Rhythm = (typeof RHYTHMS)[number];

const PART: Record<Rhythm, string> = {
  ...{ DAILY: 'FREQ=DAILY', WEEKDAYS: 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR' },
  ...{ MO: 'FREQ=WEEKLY;BYDAY=MO', TU: 'FREQ=WEEKLY;BYDAY=TU', WE: 'FREQ=WEEKLY;BYDAY=WE' },
  ...{ TH: 'FREQ=WEEKLY;BYDAY=TH', FR: 'FREQ=WEEKLY;BYDAY=FR', SA: 'FREQ=WEEKLY;BYDAY=SA' },
  ...{ SU: 'FREQ=WEEKLY;BYDAY=SU', MONTHLY: 'FREQ=MONTHLY;BYMONTHDAY=1' },
};

/** A recurrence rule of RFC 5545. @example toRecurrence('MO', '09:30') // 'FREQ=WEEKLY;BYDAY=MO;BYHOUR=9;BYMINUTE=30' */
export function toRecurrence(rhythm: Rhythm, time: string): string {
  const [hour, minute] = time.split(':').map(Number) as [number, number];
  return `${PART[rhythm]};BYHOUR=${hour};BYMINUTE=${minute}`;
}

/** The rhythm and the time of day of a recurrence rule; null: it is another. */
export function readRecurrence(every: string): { rhythm: Rhythm; time: string } | null {
  const [, part, hour, minute] = /^(.+);BYHOUR=(\d{1,2});BYMINUTE=(\d{1,2})$/.exec(every) ?? [];
  const rhythm = RHYTHMS.find((each) => PART[each] === part);
  if (!rhythm || hour === undefined || minute === undefined) return null;
  return { rhythm, time: `${hour.padStart(2, '0')}:${minute.padStart(2, '0')}` };
}

/** How long, as it is chosen: so many hours or days; null: it is another duration. */
export function readSpan(duration: string): { amount: number; unit: 'H' | 'D' } | null {
  const [, days, hours] = /^P(?:(\d+)D|T(\d+)H)$/.exec(duration) ?? [];
  if (days !== undefined) return { amount: Number(days), unit: 'D' };
  return hours === undefined ? null : { amount: Number(hours), unit: 'H' };
}

/** @example toSpan(3, 'D') // 'P3D' */
export const toSpan = (amount: number, unit: 'H' | 'D'): string =>
  unit === 'D' ? `P${amount}D` : `PT${amount}H`;
