import fc from 'fast-check';
import { holds, type Condition, type Fields, type Scalar } from '../conditions';
import { checkRule, findRings, rulesFor, whyOf, type Effect, type Happening, type Rule } from './index';

const ALWAYS: Condition = { all: [] };
const rule = (id: string, given: Partial<Rule>): Rule => ({
  ...{ id, order: 1, isOn: true, teamId: null, trigger: { on: 'received' }, provided: ALWAYS },
  ...{ effects: [], isLast: false },
  ...given,
});
const happening = (given: Partial<Happening> = {}): Happening => ({
  ...{ entryId: 'e1', kind: 'received', at: 0, changes: [], byRules: [] },
  ...given,
});
const set = (field: string, to: Scalar): Effect => ({ do: 'set', field, to });
const is = (field: string, value: Scalar): Condition => ({ field, op: 'is', value });
const idsOf = (rules: Rule[], what: Happening, ticket: Fields): string[] =>
  rulesFor(rules, what, ticket).map(({ ruleId }) => ruleId);

test('each rule is asked of the ticket as those before it leave it, by order and then by id', () => {
  const rules = [
    rule('c', {
      order: 2,
      provided: is('priority', 'P1'),
      effects: [{ do: 'note', words: { en: 'x', pt: 'x' } }],
    }),
    rule('b', { provided: is('teamId', 'gates'), effects: [set('priority', 'P1')] }),
    rule('a', { effects: [{ do: 'give', teamId: 'gates' }] }),
    rule('off', { isOn: false, effects: [set('priority', 'P4')] }),
  ];
  const ticket = { teamId: 'desk', assigneeId: 'bia', priority: 'P3' };
  expect(idsOf(rules, happening(), ticket)).toEqual(['a', 'b', 'c']);
  // What was given is not changed.
  expect(ticket).toEqual({ teamId: 'desk', assigneeId: 'bia', priority: 'P3' });
  expect(idsOf(rules, happening(), { teamId: 'gates', groupId: null, assigneeId: null })).toEqual(['b', 'c']);
});

test('a rule of a team is asked only while the ticket is the team’s, in this very run', () => {
  const rules = [
    rule('away', { order: 1, teamId: 'desk', effects: [{ do: 'give', teamId: 'gates', personId: 'noor' }] }),
    rule('late', { order: 2, teamId: 'desk', effects: [set('a', 1)] }),
    rule('ours', { order: 2, teamId: 'gates', effects: [set('b', 1)] }),
  ];
  expect(idsOf(rules, happening(), { teamId: 'desk' })).toEqual(['away', 'ours']);
  expect(idsOf(rules, happening(), {})).toEqual([]);
});

test('a field that changed is heard of in an entry of whatever kind, from and to by identity', () => {
  const to = (from: Scalar | undefined, into: Scalar | undefined): Rule =>
    rule('r', {
      trigger: {
        ...{ on: 'fieldChanged' as const, field: 'priority' },
        ...(from !== undefined && { from }),
        ...(into !== undefined && { to: into }),
      },
      effects: [set('seen', true)],
    });
  const changed = (before: Scalar, after: Scalar): Happening =>
    happening({ kind: 'held', changes: [{ field: 'priority', before, after }] });
  const fires = (each: Rule, what: Happening): boolean => rulesFor([each], what, {}).length > 0;
  expect(fires(to(undefined, 'P1'), changed('P2', 'P1'))).toBe(true);
  expect(fires(to('P2', undefined), changed('P2', 'P1'))).toBe(true);
  expect(fires(to(null, undefined), changed(null, 'P1'))).toBe(true);
  expect(fires(to(null, undefined), changed('P3', 'P1'))).toBe(false);
  expect(fires(to(undefined, '1'), changed('P2', 1))).toBe(false);
  expect(fires(to(undefined, undefined), changed('P1', 'P1'))).toBe(false);
  // Without a field it is a kind like the others.
  const plain = rule('r', { trigger: { on: 'fieldChanged' }, effects: [set('seen', true)] });
  expect(fires(plain, changed('P2', 'P1'))).toBe(false);
  expect(fires(plain, happening({ kind: 'fieldChanged' }))).toBe(true);
});

test('silence and time are no happenings, whatever a happening calls itself', () => {
  const triggers: Rule['trigger'][] = [
    { on: 'time', every: 'FREQ=DAILY', zone: 'UTC' },
    { on: 'silence', since: 'received', unless: [], after: 'PT1H', calendar: null },
  ];
  for (const trigger of triggers)
    expect(
      rulesFor(
        [rule('r', { trigger, effects: [set('x', 1)] })],
        happening({ kind: trigger.on as 'received' }),
        {},
      ),
    ).toEqual([]);
});

test('nothing goes round in a ring, and no chain is longer than eight', () => {
  const rules = [rule('a', { effects: [set('x', 1)] })];
  expect(idsOf(rules, happening({ byRules: ['b', 'a'] }), {})).toEqual([]);
  expect(idsOf(rules, happening({ byRules: 'b c d e f g h'.split(' ') }), {})).toEqual(['a']);
  expect(idsOf(rules, happening({ byRules: 'b c d e f g h i'.split(' ') }), {})).toEqual([]);
});

test('what changes nothing is left out; a rule with nothing left fires all the same', () => {
  const rules = [
    rule('a', { order: 1, effects: [set('x', 1), { do: 'hold', for: 'requester' }], isLast: true }),
    rule('b', { order: 2, effects: [set('y', 1)] }),
  ];
  const asItIs = { x: 1, state: 'held', heldFor: 'requester' };
  expect(rulesFor(rules, happening(), asItIs)).toEqual([]);
  const until = rule('c', { effects: [{ do: 'hold', for: 'requester', until: 'PT4H' }] });
  expect(idsOf([until], happening(), asItIs)).toEqual(['c']);
  // Against what the one before left: back and forth is two changes.
  const twice = rule('d', { effects: [set('x', 2), set('x', 1), set('x', 1)] });
  expect(rulesFor([twice], happening(), { x: 1 })[0]!.effects).toEqual([set('x', 2), set('x', 1)]);
});

test('an end is seen by the rules after it', () => {
  const rules = [
    rule('a', { order: 1, effects: [{ do: 'end', as: 'withdrawn', words: { en: 'gone', pt: 'foi' } }] }),
    rule('b', { order: 2, provided: is('state', 'withdrawn'), effects: [set('x', 1)] }),
  ];
  expect(idsOf(rules, happening(), { state: 'received' })).toEqual(['a', 'b']);
});

test('words in a text: their form, case and accents do not matter, and nothing inside a longer word', () => {
  const has = (op: 'hasAny' | 'hasAll', value: string[], title: unknown): boolean =>
    rulesFor([rule('r', { provided: { field: 'title', op, value }, effects: [set('x', 1)] })], happening(), {
      title,
    }).length > 0;
  expect(has('hasAny', ['card'], 'Two CARDS rejected at gate 4')).toBe(true);
  expect(has('hasAny', ['card'], 'The cardboard is wet')).toBe(false);
  expect(has('hasAny', ['serviços'], 'O serviço não abre')).toBe(true);
  expect(has('hasAny', ['cartão'], 'O CARTAO não abre')).toBe(true);
  expect(has('hasAny', ['season pass'], 'Season passes, again')).toBe(true);
  expect(has('hasAny', ['season pass'], 'pass of the season')).toBe(false);
  expect(has('hasAll', ['gate', 'card'], 'card at the gates')).toBe(true);
  expect(has('hasAll', ['gate', 'card'], 'card at the door')).toBe(false);
  expect(has('hasAny', ['*', '%'], 'anything * %')).toBe(false);
  expect(has('hasAny', ['card'], null)).toBe(false);
  expect(has('hasAny', [], 'card')).toBe(false);
  expect(has('hasAll', [], 'card')).toBe(true);
});

test('says which part of a condition did not hold, and what it met', () => {
  const asked = rule('r', {
    provided: { all: [is('teamId', 'gates'), is('priority', 'P1')] },
    effects: [set('x', 1)],
  });
  expect(whyOf(asked, happening(), { teamId: 'gates', priority: 'P3' })).toEqual({
    ...{ fired: false, because: 'condition', unmet: { part: is('priority', 'P1'), value: 'P3' } },
  });
  expect(whyOf(asked, happening(), { teamId: 'gates', priority: 'P1' })).toEqual({ fired: true });
  expect(whyOf({ ...asked, teamId: 'desk' }, happening(), {})).toMatchObject({ because: 'otherTeam' });
  expect(whyOf({ ...asked, isOn: false }, happening(), {})).toMatchObject({ because: 'off' });
  expect(whyOf(asked, happening({ kind: 'done' }), {})).toMatchObject({ because: 'notAsked' });
  expect(whyOf(asked, happening({ byRules: ['r'] }), {})).toMatchObject({ because: 'chain' });
});

test('a rule is refused with all that is wrong with it, and shown the ring that it closes', () => {
  const bad = rule('r', {
    trigger: { on: 'fieldChanged', field: 'x', from: 1, to: 1 },
    effects: [
      { do: 'answer', words: { en: ' ', pt: '' } },
      { do: 'hold', for: 'requester', until: 'P1W' },
    ],
  });
  expect(checkRule(bad)).toEqual(['sameBeforeAndAfter', 'noWords', 'badDuration']);
  expect(checkRule(rule('r', {}))).toEqual(['noEffect']);
  const time = (every: string, zone: string): Rule =>
    rule('r', { trigger: { on: 'time', every, zone }, effects: [set('x', 1)] });
  expect(checkRule(time('FREQ=DAILY;BYHOUR=9', 'Europe/Lisbon'))).toEqual([]);
  expect(checkRule(time('FREQ=OFTEN', 'Europe/Lisbon'))).toEqual(['badTime']);
  expect(checkRule(time('FREQ=DAILY', 'Europe/Nowhere'))).toEqual(['unknownZone']);
  const onField = (field: string, writes: string): Partial<Rule> => ({
    ...{ trigger: { on: 'fieldChanged', field }, effects: [set(writes, 1)] },
  });
  const rules = [rule('a', onField('x', 'y')), rule('b', onField('y', 'z')), rule('c', onField('z', 'x'))];
  expect(findRings(rules, 'b')).toEqual([['b', 'c', 'a']]);
  expect(findRings(rules.slice(0, 2), 'b')).toEqual([]);
});

/** Rules as they are said in words, one after the other, on a copy: as plain as can be. */
function interpret(rules: Rule[], what: Happening, ticket: Fields): { ruleId: string; effects: Effect[] }[] {
  const now: Fields = { ...ticket };
  const told = [];
  const key = ({ order, id }: Rule): string => `${String(order).padStart(3, '0')} ${id}`;
  for (const each of [...rules].sort((a, b) => (key(a) < key(b) ? -1 : 1))) {
    const { trigger } = each;
    if (!each.isOn || what.byRules.length >= 8 || what.byRules.includes(each.id)) continue;
    if (each.teamId !== null && now.teamId !== each.teamId) continue;
    let isHeard = trigger.on === what.kind;
    if ('field' in trigger)
      isHeard = what.changes.some(
        ({ field, before, after }) =>
          field === trigger.field &&
          before !== after &&
          (!('from' in trigger) || trigger.from === before) &&
          (!('to' in trigger) || trigger.to === after),
      );
    if (!isHeard || !holds(each.provided, now)) continue;
    const done: Effect[] = [];
    for (const effect of each.effects) {
      const before = JSON.stringify(
        [now.x, now.y, now.teamId, now.groupId, now.assigneeId, now.state, now.heldFor].map(
          (value) => value ?? null,
        ),
      );
      if (effect.do === 'set') now[effect.field] = effect.to;
      if (effect.do === 'give')
        Object.assign(now, {
          teamId: effect.teamId,
          groupId: effect.groupId ?? null,
          assigneeId: effect.personId ?? null,
        });
      if (effect.do === 'hold') Object.assign(now, { state: 'held', heldFor: effect.for });
      if (effect.do === 'end') now.state = effect.as;
      const after = JSON.stringify(
        [now.x, now.y, now.teamId, now.groupId, now.assigneeId, now.state, now.heldFor].map(
          (value) => value ?? null,
        ),
      );
      const speaks = effect.do === 'set' || effect.do === 'give' || (effect.do === 'hold' && !effect.until);
      if (!speaks || before !== after) done.push(effect);
    }
    if (done.length > 0) told.push({ ruleId: each.id, effects: done });
    if (each.isLast) break;
  }
  return told;
}

test('law: a thousand random sets of rules fire as a plain interpreter says', () => {
  const value = fc.constantFrom<Scalar>(null, 1, 2, 'a');
  const field = fc.constantFrom('x', 'y');
  const team = fc.constantFrom('desk', 'gates');
  const words = fc.constant({ en: 'w', pt: 'w' });
  const effect: fc.Arbitrary<Effect> = fc.oneof(
    fc.record({ do: fc.constant('set' as const), field, to: value }),
    fc.record(
      { do: fc.constant('give' as const), teamId: team, personId: fc.constantFrom('bia', 'noor') },
      { requiredKeys: ['do', 'teamId'] },
    ),
    fc.record(
      {
        do: fc.constant('hold' as const),
        for: fc.constantFrom('requester' as const, 'supplier' as const),
        until: fc.constant('PT1H'),
      },
      { requiredKeys: ['do', 'for'] },
    ),
    fc.record({ do: fc.constant('note' as const), words }),
    fc.record({
      do: fc.constant('end' as const),
      as: fc.constantFrom('done' as const, 'withdrawn' as const),
      words,
    }),
  );
  const trigger: fc.Arbitrary<Rule['trigger']> = fc.oneof(
    fc.record({ on: fc.constantFrom('received' as const, 'held' as const, 'fieldChanged' as const) }),
    fc.record(
      { on: fc.constant('fieldChanged' as const), field, from: value, to: value },
      { requiredKeys: ['on', 'field'] },
    ),
  );
  const rules = fc.array(
    fc.record({
      ...{ order: fc.nat(3), isOn: fc.boolean(), teamId: fc.option(team), trigger },
      provided: fc.oneof(
        fc.constant(ALWAYS),
        fc.record({ field, op: fc.constantFrom('is' as const, 'isNot' as const), value }),
      ),
      ...{ effects: fc.array(effect, { maxLength: 3 }), isLast: fc.boolean() },
    }),
    { maxLength: 8 },
  );
  const what = fc.record({
    kind: fc.constantFrom('received' as const, 'held' as const),
    changes: fc.array(fc.record({ field, before: value, after: value }), { maxLength: 2 }),
    byRules: fc.array(fc.constantFrom('r0', 'r1', 'z'), { maxLength: 9 }),
  });
  const ticket = fc.record({ x: value, y: value, teamId: team, state: fc.constantFrom('received', 'held') });
  fc.assert(
    fc.property(rules, what, ticket, (made, heard, fields) => {
      const named = made.map((each, i) => ({ id: `r${i}`, ...each }));
      const all = { entryId: 'e', at: 0, ...heard };
      const told = rulesFor(named, all, fields);
      expect(told).toEqual(interpret(named, all, fields));
      // Whatever the order in which they are given.
      expect(rulesFor([...named].reverse(), all, fields)).toEqual(told);
    }),
    { numRuns: 1_000 },
  );
});
