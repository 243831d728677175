import { createTimes } from './times';

const t = (key: string, values: Record<string, unknown> = {}): string =>
  `${key.split('/').at(-1)}:${Object.values(values).join()}`;
const times = createTimes({ timeZone: 'Europe/Lisbon', language: 'en', t });
const now = Date.UTC(2026, 10, 25, 10, 24);

test('instants are shown in the viewer’s zone', () => {
  expect(times.hour(Date.UTC(2026, 6, 1, 12))).toBe('13:00');
  expect(times.hour(Date.UTC(2026, 6, 1, 12), 'Atlantic/Azores')).toBe('12:00');
});

test.each([
  [Date.UTC(2026, 10, 25, 13, 12), 'today:13:12'],
  [Date.UTC(2026, 10, 26, 9), 'tomorrow:09:00'],
  [Date.UTC(2026, 10, 24, 9), 'yesterday:09:00'],
  [Date.UTC(2026, 11, 4, 9, 5), 'Fri 4 Dec 09:05'],
])('%#', (at, words) => expect(times.when(at, now)).toBe(words));

test.each([
  [0, undefined, 'min:0'],
  [59, undefined, 'min:59'],
  [168, undefined, 'h:2 min:48'],
  [120, undefined, 'h:2'],
  [1260, 10, 'd:2 h:1'],
  [600, 10, 'h:10'],
])('%i minutes at %p hours a day: %s', (minutes, hoursPerDay, words) =>
  expect(times.span(minutes, hoursPerDay)).toBe(words),
);
