import fc from 'fast-check';
import { actOn, listActs, THING_ACTS, THING_STATES, works, type Custody, type ThingAct } from './index';

const NOW = Date.UTC(2026, 5, 1);
const LATER = NOW + 7 * 86_400_000;

function go(before: Custody, ...acts: [ThingAct, string?][]): Custody {
  return acts.reduce((custody, [act, holderId]) => {
    const result = actOn(custody, act, { holderId: holderId ?? null, lentUntil: LATER, now: NOW });
    if ('problem' in result) throw new Error(`${act}: ${result.problem.code}`);
    return result.after;
  }, before);
}
const NEW: Custody = { state: 'ordered', holderId: null, lentUntil: null };

test('a thing arrives, is handed over, mended, handed on, taken back and retired', () => {
  const used = go(NEW, ['arrive'], ['handOver', 'tomas']);
  expect(used).toEqual({ state: 'inUse', holderId: 'tomas', lentUntil: null });
  // Who has it waits for it while it is mended, and has it again.
  const mended = go(used, ['sendToRepair'], ['comeFromRepair']);
  expect(mended).toEqual(used);
  expect(go(mended, ['handOver', 'rosa'], ['takeBack'])).toEqual({ ...NEW, state: 'inStore' });
  expect(go(mended, ['retire'])).toEqual({ ...NEW, state: 'retired' });
});

test('what is lent comes back on a day, which stays while it is in repair', () => {
  const lent = go(NEW, ['arrive'], ['lend', 'tomas']);
  expect(lent).toEqual({ state: 'lent', holderId: 'tomas', lentUntil: LATER });
  expect(go(lent, ['sendToRepair']).lentUntil).toBe(LATER);
  expect(go(lent, ['handOver', 'tomas']).lentUntil).toBeNull();
  expect(go(lent, ['takeBack']).lentUntil).toBeNull();
});

test('what is missing or not possible is said, and nothing changes', () => {
  const say = (state: Custody['state'], act: ThingAct, holderId: string | null, lentUntil: number | null) =>
    actOn({ ...NEW, state }, act, { holderId, lentUntil, now: NOW });
  expect(say('inStore', 'handOver', null, null)).toEqual({ problem: { field: 'holderId', code: 'missing' } });
  expect(say('inStore', 'lend', 'tomas', null)).toEqual({ problem: { field: 'lentUntil', code: 'missing' } });
  expect(say('inStore', 'lend', 'tomas', NOW)).toEqual({ problem: { field: 'lentUntil', code: 'past' } });
  expect(say('retired', 'handOver', 'tomas', null)).toEqual({ problem: { field: 'act', code: 'notNow' } });
  expect(listActs('retired', true)).toEqual(['bringBack']);
  // What stands where it is, is neither handed over nor lost.
  expect(listActs('inUse', false)).toEqual(['sendToRepair', 'retire']);
});

test('law: an act is possible where it is listed; nobody holds what is in store, ordered or retired', () => {
  fc.assert(
    fc.property(fc.array(fc.constantFrom(...THING_ACTS), { maxLength: 12 }), (acts) => {
      let custody = NEW;
      for (const act of acts) {
        const result = actOn(custody, act, { holderId: 'tomas', lentUntil: LATER, now: NOW });
        expect('after' in result).toBe(listActs(custody.state, true).includes(act));
        if ('after' in result) custody = result.after;
        if (['ordered', 'inStore', 'retired'].includes(custody.state)) expect(custody.holderId).toBeNull();
        if (custody.state === 'lent') expect(custody).toMatchObject({ holderId: 'tomas', lentUntil: LATER });
        if (custody.holderId === null) expect(custody.lentUntil).toBeNull();
      }
    }),
  );
  expect(THING_STATES.filter((state) => !works(state))).toEqual(['inRepair', 'retired', 'lost']);
});
