import { screen } from '@testing-library/react';
import type { Clock } from '../../../contract/clocks';
import { api } from '../../../contract';
import { WEEKDAYS } from '../../../core/calendar';
import { standIn } from '../../testing/server';
import { show } from '../../testing/show';
import { AT, ticketOf } from '../../testing/ticket';
import { Clocks } from './Clocks';

const MINUTE = 60_000;
const server = standIn();
const always = Object.fromEntries(WEEKDAYS.map((day) => [day, [{ from: '00:00', to: '24:00' }]]));
const office = {
  ...{ id: 'office', version: 1, isUsed: true },
  spec: { name: 'Office', timeZone: 'Europe/Lisbon', hoursPerDay: 24, exceptions: [], weekly: always },
};
const clock = (name: string, given: Partial<Clock> = {}): Clock => ({
  ...{ targetId: name, work: 'ticket', name, kind: 'serviceLevel', measures: 'resolution', state: 'running' },
  ...{ countedFrom: AT - 30 * MINUTE, elapsed: 30 * MINUTE, limit: 60 * MINUTE, dueAt: AT + 30 * MINUTE },
  ...{ breachedAt: null, stoppedAt: null, calendarId: 'office', held: [] },
  ...given,
});
const open = (clocks: Clock[], options: Parameters<typeof show>[1] = {}) =>
  show(<Clocks ticket={ticketOf([], { clocks })} now={AT} />, {
    answers: [[['calendars'], [office]]],
    ...options,
  });

test('what runs stands first, what was missed after it, and what was met is folded away', async () => {
  await open([
    clock('Answer', { state: 'met', elapsed: 8 * MINUTE, dueAt: AT, stoppedAt: AT }),
    clock('Take up', { state: 'missed', elapsed: 90 * MINUTE, breachedAt: AT, stoppedAt: AT }),
    clock('Resolve'),
  ]);
  const names = [...document.querySelectorAll('b')].map((each) => each.previousElementSibling!.textContent);
  expect(names.map((name) => name.split(' · ')[0])).toEqual(['Resolve', 'Take up', 'Answer']);
  expect(screen.getByText('1 that was met').closest('details')!.open).toBe(false);
  expect(screen.getByText('Answer', { exact: false }).closest('details')).not.toBeNull();
});

test('where all were met, they are shown', async () => {
  await open([clock('Answer', { state: 'met', elapsed: 8 * MINUTE, stoppedAt: AT })], { language: 'pt' });
  expect(screen.getByText(/Answer/)).toBeTruthy();
  expect(document.querySelector('details')).toBeNull();
});

test('nothing is said of the time left until the calendar is there', async () => {
  // It has not answered yet.
  server().on(api.calendars.list, () => new Promise(() => undefined));
  await open([clock('Resolve')], { answers: [] });
  expect(document.querySelector('b')!.textContent).toBe('…');
});

test.each([
  [30, '30 min left'],
  [0, 'due now'],
  [-1, '1 min past due'],
])('with %i minutes left it says “%s”', async (left, said) => {
  await open([clock('Resolve', { dueAt: AT + left * MINUTE - 1 })]);
  expect(document.querySelector('b')!.textContent).toContain(said === '30 min left' ? 'min left' : said);
});
