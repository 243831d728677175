import fc from 'fast-check';
import { compileCalendar } from '../calendar';
import { isOpen, TICKET_STATES } from '../tickets';
import { HOLDS, ticketFactOf, type FactEntry } from './facts';

const HOUR = 3_600_000;
const office = compileCalendar({
  ...{ name: 'Office', timeZone: 'UTC', hoursPerDay: 8, exceptions: [] },
  weekly: Object.fromEntries(
    ['mon', 'tue', 'wed', 'thu', 'fri'].map((day) => [day, [{ from: '09:00', to: '17:00' }]]),
  ),
});
const wall = (from: number, to: number): number => to - from;
const at = (day: number, hour: string): number =>
  Date.parse(`2026-11-${String(day).padStart(2, '0')}T${hour}:00Z`);

let lastId = 0;
const entry = (instant: number, type: string, set: Record<string, unknown> = {}): FactEntry => ({
  ...{ id: ++lastId, at: instant, type, via: 'mail' },
  changes: Object.fromEntries(Object.entries(set).map(([field, to]) => [field, { from: null, to }])),
});
const OPENING = {
  kind: 'incident',
  serviceId: 'laptop',
  teamId: 'desk',
  requesterId: 'tomas',
  state: 'received',
};

test('of nothing nothing is counted', () => {
  expect(ticketFactOf([], wall)).toBeNull();
});

describe('a ticket worked out by hand', () => {
  // Monday 16:00 to Tuesday 15:00 on weekdays from nine to five.
  const entries = [
    entry(at(2, '16:00'), 'sent', OPENING),
    entry(at(2, '16:30'), 'taken', { assigneeId: 'bia', state: 'inWork' }),
    entry(at(3, '10:00'), 'answered', { answered: true }),
    entry(at(3, '10:00'), 'held', { state: 'held', heldFor: 'requester' }),
    entry(at(3, '12:00'), 'resumed', { state: 'inWork', heldFor: null }),
    entry(at(3, '13:00'), 'givenOn', { teamId: 'network', assigneeId: null, state: 'received' }),
    entry(at(3, '14:00'), 'taken', { assigneeId: 'sten', state: 'inWork' }),
    entry(at(3, '14:30'), 'answered', { answered: true }),
    entry(at(3, '15:00'), 'done', { state: 'done' }),
  ];

  test('has its lengths in working time and by the clock on the wall', () => {
    expect(ticketFactOf(entries, office.workingBetween)).toMatchObject({
      ...{ opened: at(2, '16:00'), answered: at(3, '10:00'), done: at(3, '15:00'), ended: at(3, '15:00') },
      ...{
        closed: null,
        toAnswer: 18 * HOUR,
        workToAnswer: 2 * HOUR,
        toDone: 23 * HOUR,
        workToDone: 7 * HOUR,
      },
      // 16:00–16:30 and 13:00–14:00 nobody had it; 16:30–10:00, 12:00–13:00 and 14:00–15:00 someone had.
      ...{ waited: 1.5 * HOUR, own: 3.5 * HOUR, heldForRequester: 2 * HOUR },
      ...{ heldForSupplier: 0, heldForApproval: 0, heldForOther: 0 },
      ...{
        teams: 2,
        reopened: 0,
        messages: 2,
        teamId: 'network',
        assigneeId: 'sten',
        state: 'done',
        via: 'mail',
      },
      upTo: entries.at(-1)!.id,
    });
  });

  test('that is opened again is not done, until it is', () => {
    const again = [...entries, entry(at(4, '09:00'), 'reopened', { state: 'inWork' })];
    expect(ticketFactOf(again, office.workingBetween)).toMatchObject({
      ...{ done: null, ended: null, toDone: null, workToDone: null, reopened: 1 },
    });
    const done = [...again, entry(at(4, '10:00'), 'done', { state: 'done' })];
    expect(ticketFactOf(done, office.workingBetween)).toMatchObject({
      // What lay between done and opened again was nobody's time.
      ...{ done: at(4, '10:00'), reopened: 1, own: 4.5 * HOUR },
    });
  });

  test('that is withdrawn ended and was never done', () => {
    const withdrawn = [...entries.slice(0, 3), entry(at(3, '11:00'), 'withdrawn', { state: 'withdrawn' })];
    expect(ticketFactOf(withdrawn, office.workingBetween)).toMatchObject({
      ...{ done: null, ended: at(3, '11:00'), toDone: null },
    });
  });

  test('that is closed stays done when it was done', () => {
    const closed = [...entries, entry(at(10, '15:00'), 'closed', { state: 'closed' })];
    expect(ticketFactOf(closed, office.workingBetween)).toMatchObject({
      ...{ done: at(3, '15:00'), closed: at(10, '15:00'), workToDone: 7 * HOUR },
    });
  });
});

test('what a field of no hold is called goes to the others, also by names that every object has', () => {
  const held = ['supplier', 'approval', 'date', 'constructor'].flatMap((heldFor, i) => [
    entry(i * 2 * HOUR, i === 0 ? 'sent' : 'held', { ...OPENING, state: 'held', heldFor }),
    entry((i * 2 + 1) * HOUR, 'resumed', { state: 'inWork', heldFor: null, assigneeId: 'bia' }),
  ]);
  expect(ticketFactOf(held, wall)).toMatchObject({
    ...{ heldForSupplier: HOUR, heldForApproval: HOUR, heldForOther: 2 * HOUR, own: 3 * HOUR },
  });
});

const history = fc
  .array(
    fc.record({
      after: fc.nat(5 * HOUR),
      state: fc.constantFrom(...TICKET_STATES),
      heldFor: fc.constantFrom('requester', 'supplier', 'approval', 'ticket', null),
      assigneeId: fc.constantFrom('bia', null),
    }),
    { maxLength: 12 },
  )
  .map((moves) => {
    let now = at(2, '08:00');
    return [
      entry(now, 'sent', OPENING),
      ...moves.map(({ after, ...set }) => entry((now += after), 'changed', set)),
    ];
  });

test('what it was spent on adds up to the working time in which it was open', () => {
  fc.assert(
    fc.property(history, (entries) => {
      const fact = ticketFactOf(entries, office.workingBetween)!;
      let [open, state] = [0, 'received'];
      entries.forEach(({ at: now, changes }, i) => {
        if (i > 0 && isOpen(state as 'held')) open += office.workingBetween(entries[i - 1]!.at, now);
        state = (changes.state?.to as string | undefined) ?? state;
      });
      const spent = [fact.own, fact.waited, ...HOLDS.map((hold) => fact[hold])];
      expect(spent.reduce((sum, each) => sum + each, 0)).toBeCloseTo(open, 6);
      expect(fact.ended === null).toBe(isOpen(fact.state));
    }),
  );
});

test('its beginning says nothing of what came later, and no entry changes what lay before', () => {
  fc.assert(
    fc.property(history, (entries) => {
      const whole = ticketFactOf(entries, wall)!;
      entries.forEach((_, i) => {
        const part = ticketFactOf(entries.slice(0, i + 1), wall)!;
        expect(part.opened).toBe(whole.opened);
        expect(part.own).toBeLessThanOrEqual(whole.own);
        expect(part.reopened).toBeLessThanOrEqual(whole.reopened);
      });
    }),
  );
});
