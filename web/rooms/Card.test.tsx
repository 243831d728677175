import { screen } from '@testing-library/react';
import { api } from '../../contract';
import type { RoomMessage } from '../../contract/rooms';
import type { CalendarSpec } from '../../core/calendar';
import { setServerNow } from '../api/clock';
import { standIn } from '../testing/server';
import { show } from '../testing/show';
import { Card } from './Card';

const server = standIn();
const HOUR = 3_600_000;
/** Nine to five, every day but the weekend. */
const spec: CalendarSpec = {
  ...{ name: 'Office', timeZone: 'UTC', hoursPerDay: 8, exceptions: [] },
  weekly: Object.fromEntries(
    (['mon', 'tue', 'wed', 'thu', 'fri'] as const).map((day) => [day, [{ from: '09:00', to: '17:00' }]]),
  ),
};
const message = (clock: object): RoomMessage =>
  ({
    card: {
      ...{ number: 1204, title: 'Gate 4 is dark', facts: 'Ana Lobo · P2', isLate: false, isOver: false },
      ...{ link: 'http://listo.example/desk/everything/1204', actions: [], dueAt: null },
      clock: { elapsed: 0, breachedAt: null, state: 'running', calendarId: 'office', ...clock },
    },
  }) as unknown as RoomMessage;

afterEach(() => setServerNow(Date.now()));

test.each([
  // From Friday at four until Tuesday at ten: one hour, eight, and one.
  ['2026-12-08T10:00Z', '10 h', 'plenty'],
  ['2026-12-09T11:00Z', '2 d 3 h', 'plenty'],
  ['2026-12-04T16:20Z', '20 min', 'short'],
  ['2026-12-03T16:00Z', '8 h past due', 'past'],
])(
  'due %s, what is left of a ticket in a room is its working time, as on the Desk: %s',
  async (due, words, tone) => {
    setServerNow(Date.parse('2026-12-04T16:00Z'));
    const clock = { limit: 24 * HOUR, dueAt: Date.parse(due) };
    await show(<Card message={message(clock)} isActing={false} onAct={() => undefined} />, {
      answers: [[['calendars'], [{ id: 'office', spec }]]],
    });
    expect(screen.getByText(words).dataset.tone).toBe(tone);
  },
);

test('as long as its calendar is not there, nothing is said of the time that is left', async () => {
  server().on(api.calendars.list, () => new Promise(() => undefined));
  const clock = { limit: 24 * HOUR, dueAt: Date.now() + HOUR };
  await show(<Card message={message(clock)} isActing={false} onAct={() => undefined} />);
  expect(screen.getByText('…')).toBeTruthy();
});
