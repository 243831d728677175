import { afterSilence, mayComeBack, whoWaits } from './index';

const MINUTE = 60_000;
const times = { askAfter: 5, endAfter: 10 };

test('silence: asked first, ended later, never while the agent owes an answer', () => {
  const waiting = { personSaidAt: 0, agentSaidAt: MINUTE, askedAt: null };
  expect(afterSilence(waiting, times, 5 * MINUTE)).toBe('nothing');
  expect(afterSilence(waiting, times, 6 * MINUTE)).toBe('ask');
  const asked = { ...waiting, askedAt: 6 * MINUTE };
  expect(afterSilence(asked, times, 15 * MINUTE)).toBe('nothing');
  expect(afterSilence(asked, times, 16 * MINUTE)).toBe('end');
  // They answered: it begins anew.
  expect(afterSilence({ ...asked, personSaidAt: 7 * MINUTE }, times, 60 * MINUTE)).toBe('nothing');
  expect(
    afterSilence(
      { personSaidAt: 7 * MINUTE, agentSaidAt: 8 * MINUTE, askedAt: 6 * MINUTE },
      times,
      14 * MINUTE,
    ),
  ).toBe('ask');
  expect(afterSilence({ personSaidAt: 0, agentSaidAt: null, askedAt: null }, times, 99 * MINUTE)).toBe(
    'nothing',
  );
});

test('who waits, and since when', () => {
  expect(whoWaits({ personSaidAt: 5, agentSaidAt: 3 })).toEqual({ who: 'person', since: 5 });
  expect(whoWaits({ personSaidAt: 5, agentSaidAt: 8 })).toEqual({ who: 'agent', since: 8 });
  expect(whoWaits({ personSaidAt: 5, agentSaidAt: null })).toEqual({ who: 'person', since: 5 });
});

test('one can come back within a day', () => {
  expect(mayComeBack(0, 23 * 60 * MINUTE)).toBe(true);
  expect(mayComeBack(0, 24 * 60 * MINUTE)).toBe(false);
  expect(mayComeBack(null, 0)).toBe(false);
});
