import fc from 'fast-check';
import { areAlike, closesRing, INVITATION_MS, invitationState } from './index';

const lineOf =
  (managers: Record<string, string>) =>
  (id: string): string | null =>
    managers[id] ?? null;

test('a manager must not be managed by whom they manage, however far up', () => {
  const managerOf = lineOf({ tomas: 'rui', rui: 'ana', ana: 'ines' });
  expect(closesRing('ines', 'tomas', managerOf)).toBe(true);
  expect(closesRing('ana', 'ana', managerOf)).toBe(true);
  expect(closesRing('tomas', 'ines', managerOf)).toBe(false);
  expect(closesRing('tomas', null, managerOf)).toBe(false);
});

test('law: setting only managers that close no ring, no line ever comes round', () => {
  const ids = ['a', 'b', 'c', 'd', 'e'];
  const pair = fc.tuple(fc.constantFrom(...ids), fc.constantFrom(...ids));
  fc.assert(
    fc.property(fc.array(pair, { maxLength: 30 }), (wishes) => {
      const managers: Record<string, string> = {};
      for (const [id, manager] of wishes)
        if (!closesRing(id, manager, lineOf(managers))) managers[id] = manager;
      for (const id of ids) {
        let [at, steps] = [managers[id], 0];
        for (; at !== undefined && steps < 10; steps++) at = managers[at];
        expect(steps).toBeLessThan(ids.length);
      }
    }),
  );
});

test('a ring that is there already is no reason to go round for ever', () => {
  expect(closesRing('x', 'a', lineOf({ a: 'b', b: 'a' }))).toBe(false);
});

test('an invitation lets in once, within seven days, and only the last one does', () => {
  const open = { endsAt: INVITATION_MS, usedAt: null, replacedAt: null };
  expect(invitationState(open, 0)).toBe('open');
  expect(invitationState(open, INVITATION_MS - 1)).toBe('open');
  expect(invitationState(open, INVITATION_MS)).toBe('ended');
  expect(invitationState({ ...open, usedAt: 5 }, 6)).toBe('used');
  expect(invitationState({ ...open, replacedAt: 5 }, 6)).toBe('replaced');
});

test.each([
  ['Ana Lobo', 'ana lobo', true],
  ['Lobo, Ana', 'Ana Maria Lobo', true],
  ['Inês Avelar', 'Ines Avellar', true],
  ['Ana Lobo', 'Ana Lima', false],
  ['Ana', 'Ana Lobo', false],
  ['Ana', 'ANA', true],
  ['Rui Rui', 'Rui Vaz', false],
  ['', '', false],
])('%j and %j: %p', (a, b, isAlike) => {
  expect(areAlike(a, b)).toBe(isAlike);
  expect(areAlike(b, a)).toBe(isAlike);
});
