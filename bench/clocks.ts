import { compileCalendar, WEEKDAYS } from '../core/calendar';
import type { Condition } from '../core/conditions';
import { readClock, type HistoryEvent, type TargetDefinition } from '../core/targets';
import { perSecond, report } from './report';

const HOUR = 3_600_000;
const ROUND_MS = 200;
const ROUNDS = 25;
const is = (field: string, value: string): Condition => ({ field, op: 'is', value });
const windows = (from: string, to: string) =>
  Object.fromEntries(WEEKDAYS.map((day) => [day, [{ from, to }]]));
const of = (name: string, timeZone: string, from: string, to: string) =>
  compileCalendar({ name, timeZone, hoursPerDay: 10, weekly: windows(from, to), exceptions: [] });

/** Reading a clock with twelve events, four conditions and two switches of the calendar. */
export function benchClocks(): Promise<void> {
  const calendars = {
    office: of('Office', 'Europe/Lisbon', '08:00', '18:00'),
    west: of('West', 'Atlantic/Azores', '08:00', '18:00'),
  };
  const definition: TargetDefinition = {
    ...{
      id: 'resolve',
      name: 'Resolve',
      kind: 'serviceLevel',
      countFrom: 'start',
      excludeEarlierPauses: false,
    },
    startWhen: is('work', 'ticket'),
    pauseWhen: {
      all: [is('state', 'held'), { field: 'heldFor', op: 'in', value: ['requester', 'supplier'] }],
    },
    stopWhen: { field: 'state', op: 'in', value: ['done', 'closed'] },
    cancelWhen: is('state', 'withdrawn'),
    onReopen: 'resume',
    limits: [{ when: is('priority', 'P1'), duration: 'PT8H' }, { duration: 'P4D' }],
    calendars: [{ when: is('teamId', 'west'), calendarId: 'west' }, { calendarId: 'office' }],
    warnAtPercent: [50, 80],
  };
  const opened = Date.parse('2026-11-16T09:00:00Z');
  const sets: Record<string, unknown>[] = [
    { work: 'ticket', state: 'received', priority: 'P3', teamId: 'desk', heldFor: null },
    { assigneeId: 'bia', state: 'inWork' },
    { state: 'held', heldFor: 'requester' },
    { state: 'inWork', heldFor: null },
    { teamId: 'west', assigneeId: null },
    { assigneeId: 'ana' },
    { state: 'held', heldFor: 'supplier' },
    { state: 'inWork', heldFor: null },
    { priority: 'P1' },
    { priority: 'P3' },
    { teamId: 'desk' },
    { assigneeId: 'rui' },
  ];
  const history: HistoryEvent[] = sets.map((set, i) => ({ at: opened + i * 3 * HOUR, set }));
  const now = opened + 60 * HOUR;
  const rates: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const start = performance.now();
    let reads = 0;
    while (performance.now() - start < ROUND_MS)
      for (let k = 0; k < 100; k++, reads++) readClock(definition, calendars, history, now + reads);
    rates.push((reads * 1000) / (performance.now() - start));
  }
  rates.sort((a, b) => a - b);
  report(
    'reading a clock: 12 events, 4 conditions, 2 switches',
    `${perSecond(rates[ROUNDS >> 1]!)} at the median of ${ROUNDS} rounds`,
    `${perSecond(rates[0]!)} to ${perSecond(rates.at(-1)!)}`,
  );
  return Promise.resolve();
}
