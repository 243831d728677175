import fc from 'fast-check';
import type { Fields } from '../conditions';
import {
  checkProvided,
  checkRule,
  compareOrders,
  explainOnTicket,
  HEARD_KINDS,
  kindsOf,
  listFieldsAfter,
  RULE_FIELDS,
  rulesForEntry,
  toFieldChanges,
  tryOnTicket,
  type Happening,
  type Occurrence,
  type PastTicket,
  type Rule,
} from './index';
import { rulesFor } from './rulesFor';

/** What rules hear of entries, and what one would have done over the past. */
const DAY = 86_400_000;
const rule = (given: Partial<Rule>): Rule => ({
  ...{ id: 'a', order: 1, isOn: true, teamId: null, trigger: { on: 'received' }, provided: { all: [] } },
  ...{ effects: [{ do: 'note', words: { en: 'x', pt: 'x' } }], isLast: false },
  ...given,
});
const entry = (at: number, kinds: Occurrence['kinds'], changes: Occurrence['changes'] = []): Occurrence => ({
  ...{ entryId: `e${at}`, at, byRules: [], kinds, changes },
});
const past = (now: Fields, entries: Occurrence[]): PastTicket => ({ number: 1, now, entries });
const around = (others: Rule[] = [], to = 100 * DAY) => ({ others, calendars: {}, stretch: { from: 0, to } });

test.each([
  [{ type: 'sent', changes: {} }, ['received']],
  [{ type: 'sent', changes: {}, awaitsApproval: true }, []],
  [{ type: 'sent', changes: {}, isForOther: true }, ['received', 'raisedFor']],
  [
    { type: 'granted', changes: { state: { from: 'held', to: 'received' } } },
    ['received', 'stateChanged', 'fieldChanged'],
  ],
  [{ type: 'answered', changes: {}, isByRequester: true }, ['wroteBack']],
  [{ type: 'answered', changes: { answered: { from: false, to: true } } }, ['answered', 'fieldChanged']],
  [{ type: 'routed', changes: { assigneeId: { from: null, to: 'bia' } } }, ['givenOn', 'fieldChanged']],
  [{ type: 'confirmed', changes: { rating: { from: null, to: 5 } } }, ['rated', 'fieldChanged']],
  [{ type: 'ticked', changes: {} }, []],
] as const)('%j is heard as %j', (given, kinds) => {
  expect(kindsOf(given as Parameters<typeof kindsOf>[0])).toEqual(kinds);
});

test('what happens to lists and tables of a ticket is no plain value', () => {
  expect(
    toFieldChanges({ answers: { from: {}, to: { a: 1 } }, place: { from: undefined, to: 'Gate 2' } }),
  ).toEqual([
    { field: 'answers', before: null, after: null },
    { field: 'place', before: null, after: 'Gate 2' },
  ]);
});

test('rules of all kinds of an entry stand in one order, and each fires once', () => {
  const rules = [
    rule({ id: 'late', order: 3, trigger: { on: 'stateChanged' } }),
    rule({ id: 'first', order: 1, trigger: { on: 'fieldChanged', field: 'state', to: 'done' } }),
    rule({ id: 'second', order: 2, trigger: { on: 'done' }, isLast: true }),
  ];
  const done = entry(
    1,
    ['done', 'stateChanged', 'fieldChanged'],
    [{ field: 'state', before: 'inWork', after: 'done' }],
  );
  expect(rulesForEntry(rules, done, { state: 'done' }).map(({ ruleId }) => ruleId)).toEqual([
    'first',
    'second',
  ]);
});

test('of one kind, an entry is asked as a happening of that kind', () => {
  const on = fc.constantFrom(...HEARD_KINDS);
  const rules = fc.array(fc.record({ order: fc.nat(5), trigger: fc.record({ on }), isLast: fc.boolean() }), {
    maxLength: 8,
  });
  fc.assert(
    fc.property(rules, on, (given, kind) => {
      const all = given.map((each, i) => rule({ ...each, id: `r${i}` }));
      const happening: Happening = { ...entry(1, []), kind };
      expect(rulesForEntry(all, { ...entry(1, []), kinds: [kind] }, {})).toEqual(
        rulesFor(all, happening, {}),
      );
    }),
  );
});

test('the fields that each entry left are those of now, taken back one change after the other', () => {
  const fields = fc.constantFrom('a', 'b', 'c');
  const values = fc.option(fc.nat(3), { nil: null });
  const writes = fc.array(fc.dictionary(fields, values, { maxKeys: 3 }), { maxLength: 8 });
  fc.assert(
    fc.property(writes, (all) => {
      const state: Fields = { a: null, b: null, c: null };
      const kept: Fields[] = [];
      const entries = all.map((written) => {
        const changes = Object.entries(written).map(([field, after]) => ({
          ...{ field, before: state[field] as number | null, after },
        }));
        Object.assign(state, written);
        kept.push({ ...state });
        return { changes };
      });
      expect(listFieldsAfter(state, entries)).toEqual(kept);
    }),
  );
});

test('a rule would have fired where it fits the ticket as it was then, not as it is now', () => {
  const ticket = past({ priority: 'P1', state: 'done' }, [
    entry(DAY, ['received']),
    entry(2 * DAY, ['fieldChanged'], [{ field: 'priority', before: 'P3', after: 'P1' }]),
    entry(3 * DAY, ['noted']),
  ]);
  const urgent = rule({ trigger: { on: 'noted' }, provided: { field: 'priority', op: 'is', value: 'P1' } });
  expect(tryOnTicket(urgent, around(), ticket).fired.map(({ at }) => at)).toEqual([3 * DAY]);
  expect(tryOnTicket({ ...urgent, trigger: { on: 'received' } }, around(), ticket).fired).toEqual([]);
});

test('what it does sets off others, and what comes after a last one is no longer asked', () => {
  const ticket = past({ priority: 'P3' }, [entry(DAY, ['received'])]);
  const others = [
    rule({ id: 'hears', order: 5, trigger: { on: 'fieldChanged', field: 'priority', to: 'P1' } }),
    rule({ id: 'after', order: 6 }),
  ];
  const last = rule({ effects: [{ do: 'set', field: 'priority', to: 'P1' }], isLast: true });
  const trial = tryOnTicket(last, around(others), ticket);
  expect([trial.more, trial.fewer]).toEqual([{ hears: 1 }, { after: 1 }]);
});

test('silence would have been due unless it was broken; a later happening of its kind takes its place', () => {
  const silence = rule({
    trigger: { on: 'silence', since: 'held', unless: ['wroteBack'], after: 'P3D', calendar: null },
  });
  const held = (at: number) => entry(at, ['held']);
  const on = (entries: Occurrence[]) =>
    tryOnTicket(silence, around(), past({}, entries)).fired.map(({ at }) => at);
  expect(on([held(DAY)])).toEqual([4 * DAY]);
  expect(on([held(DAY), entry(2 * DAY, ['wroteBack'])])).toEqual([]);
  expect(on([held(DAY), held(2 * DAY)])).toEqual([5 * DAY]);
  expect(on([held(DAY), held(9 * DAY)])).toEqual([4 * DAY, 12 * DAY]);
  expect(tryOnTicket(silence, around([], 2 * DAY), past({}, [held(DAY)])).fired).toEqual([]);
});

test('by time it would have fired while the ticket was open', () => {
  const daily = rule({ trigger: { on: 'time', every: 'FREQ=DAILY;BYHOUR=8', zone: 'UTC' } });
  const ticket = past({ state: 'done' }, [
    entry(DAY, ['received']),
    entry(3.5 * DAY, ['done'], [{ field: 'state', before: 'received', after: 'done' }]),
  ]);
  const eight = (day: number): number => day * DAY + DAY / 3;
  expect(tryOnTicket(daily, around(), ticket).fired.map(({ at }) => at)).toEqual([
    eight(1),
    eight(2),
    eight(3),
  ]);
});

test('each time that it was asked is told, with the first part that did not hold', () => {
  const ticket = past({ priority: 'P3', teamId: 'desk' }, [entry(1, ['received']), entry(2, ['noted'])]);
  const asked = explainOnTicket(rule({ provided: { field: 'priority', op: 'is', value: 'P1' } }), ticket);
  expect(asked).toEqual([
    {
      ...{ entryId: 'e1', at: 1, kind: 'received' },
      why: {
        ...{ fired: false, because: 'condition' },
        unmet: { part: { field: 'priority', op: 'is', value: 'P1' }, value: 'P3' },
      },
    },
  ]);
});

test('a condition may ask for words in texts, and for nothing that depends on who looks or on the hour', () => {
  expect(checkProvided({ field: 'title', op: 'hasAny', value: ['card'] })).toEqual([]);
  expect(checkProvided({ field: 'priority', op: 'hasAny', value: ['card'] })[0]?.code).toBe('notAskable');
  expect(checkProvided({ not: { any: [{ field: 'teamId', op: 'in', value: ['@myTeams'] }] } })[0]?.code).toBe(
    'wrongValue',
  );
  for (const field of ['isLate', 'createdAt', 'alsoToldIds', 'nonsense'])
    expect(checkProvided({ all: [{ field, op: 'notEmpty' }] })[0]?.code).toBe('unknownField');
  expect(RULE_FIELDS).toContain('department');
});

test('another order is told by what would have gone otherwise: who fires more, who less, and where only the order differs', () => {
  const give = (id: string, order: number, teamId: string, isLast = false) =>
    rule({ id, order, isLast, effects: [{ do: 'give', teamId }] });
  const ticket = past({ teamId: 'desk' }, [entry(1, ['received']), entry(2, ['noted'])]);
  const stretch = { from: 0, to: 10 };
  const before = [give('a', 1, 'x', true), give('b', 2, 'y')];
  const after = [give('a', 2, 'x', true), give('b', 1, 'y')];
  expect(compareOrders({ before, after, stretch }, ticket)).toEqual({
    more: { b: 1 },
    fewer: {},
    otherwise: 1,
  });
  expect(compareOrders({ before, after: before, stretch }, ticket).otherwise).toBe(0);
  const both = [give('a', 1, 'x'), give('b', 2, 'y')];
  const turned = [give('a', 2, 'x'), give('b', 1, 'y')];
  expect(compareOrders({ before: both, after: turned, stretch }, ticket)).toEqual({
    ...{ more: {}, fewer: {}, otherwise: 1 },
  });
  expect(compareOrders({ before, after, stretch: { from: 2, to: 10 } }, ticket).otherwise).toBe(0);
});

test.each(['P0D', 'P3651D', 'P99999999999999D', 'PT87601H', 'soon'])('nothing waits for %s', (after) => {
  const silence = rule({ trigger: { on: 'silence', since: 'held', unless: [], after, calendar: null } });
  expect(checkRule(silence)).toEqual(['badDuration']);
  const hold = rule({ effects: [{ do: 'hold', for: 'date', until: after }] });
  expect(checkRule(hold)).toEqual(['badDuration']);
});
