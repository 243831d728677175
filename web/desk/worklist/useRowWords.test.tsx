import { screen } from '@testing-library/react';
import type { Clock } from '../../../contract/clocks';
import { compileCalendar, WEEKDAYS } from '../../../core/calendar';
import { readLive } from '../../../core/targets';
import { show } from '../../testing/show';
import { AT } from '../../testing/ticket';
import { useRowWords } from './useRowWords';

const MINUTE = 60_000;
const always = compileCalendar({
  ...{ name: 'Always', timeZone: 'UTC', hoursPerDay: 24, exceptions: [] },
  weekly: Object.fromEntries(WEEKDAYS.map((day) => [day, [{ from: '00:00', to: '24:00' }]])),
});
const clock: Clock = {
  ...{ targetId: 'resolve', work: 'ticket', name: 'Resolve', kind: 'serviceLevel', measures: 'resolution' },
  ...{ state: 'running', countedFrom: 0, elapsed: 0, limit: 60 * MINUTE, dueAt: AT, breachedAt: null },
  ...{ stoppedAt: null, calendarId: 'always', held: [] },
};

function Said({ now, isKnown }: { now: number; isKnown: boolean }) {
  const words = useRowWords();
  const live = readLive(clock, isKnown ? always : undefined, now);
  return <button aria-label={words.reading(live)}>{words.left(live, true)}</button>;
}

test.each<[string, number, boolean, shown: string, read: RegExp]>([
  ['in time', AT - 30 * MINUTE, true, '30 min', /^Resolve: 30 min left, due/],
  ['past due by less than a minute', AT + 1, true, 'due now', /^Resolve: due now$/],
  ['past due', AT + 5 * MINUTE, true, '5 min past', /^Resolve: 5 min past due since/],
  ['with a calendar that is not here yet', AT - 30 * MINUTE, false, '…', /^Resolve: …$/],
])('%s: what is read out holds what is shown', async (_, now, isKnown, shown, read) => {
  await show(<Said {...{ now, isKnown }} />);
  const button = screen.getByRole('button');
  expect(button.textContent).toBe(shown);
  expect(button.getAttribute('aria-label')).toMatch(read);
  expect(button.getAttribute('aria-label')).toContain(shown);
});
