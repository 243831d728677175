import {
  DEFAULT_PRIORITY_TABLE,
  getPriority,
  getStateSentence,
  IMPACTS,
  PRIORITIES,
  URGENCIES,
} from './index';

test('a site that cannot work is P2, a fleet P1, one person who can wait P4', () => {
  expect(getPriority(DEFAULT_PRIORITY_TABLE, 'site', 'stopsWork')).toBe('P2');
  expect(getPriority(DEFAULT_PRIORITY_TABLE, 'fleet', 'stopsWork')).toBe('P1');
  expect(getPriority(DEFAULT_PRIORITY_TABLE, 'person', 'canWait')).toBe('P4');
});

test('more impact or more urgency never lowers the priority', () => {
  const rank = (i: number, u: number) =>
    PRIORITIES.indexOf(getPriority(DEFAULT_PRIORITY_TABLE, IMPACTS[i]!, URGENCIES[u]!));
  for (let i = 0; i < IMPACTS.length; i++)
    for (let u = 0; u < URGENCIES.length; u++) {
      if (i > 0) expect(rank(i, u)).toBeLessThanOrEqual(rank(i - 1, u));
      if (u > 0) expect(rank(i, u)).toBeLessThanOrEqual(rank(i, u - 1));
    }
});

test('the sentence says who must move next', () => {
  const facts = {
    assigneeName: null,
    teamName: 'Onboard systems',
    approverNames: [],
    heldUntil: null,
    heldFor: null,
  };
  expect(getStateSentence({ ...facts, state: 'received' })).toEqual({
    code: 'received',
    params: { team: 'Onboard systems' },
  });
  expect(getStateSentence({ ...facts, state: 'received', assigneeName: 'Bia' }).code).toBe('inWork');
  const held = getStateSentence({
    ...facts,
    state: 'held',
    heldFor: 'approval',
    approverNames: ['Ana', 'Rui'],
  });
  expect(held).toEqual({ code: 'held.approval', params: { team: 'Onboard systems', approver: 'Ana, Rui' } });
});
