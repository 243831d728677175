import { changesFor, inOne, type Changes } from './index';

const changes: Changes = {
  priority: { from: 'P3', to: 'P2' },
  impact: { from: 'person', to: 'site' },
  assigneeId: { from: null, to: 'bia' },
  answered: { from: false, to: true },
};

test('the team is told of every field that says something by itself', () => {
  expect(Object.keys(changesFor('team', changes))).toEqual(['priority', 'impact', 'assigneeId']);
});

test('the requester is told of what concerns them alone, and that may be nothing', () => {
  expect(changesFor('requester', changes)).toEqual({ priority: { from: 'P3', to: 'P2' } });
  expect(changesFor('requester', { impact: changes.impact! })).toEqual({});
});

test('several changes in one: from before the first to after the last, each field by itself', () => {
  const given: Changes = {
    teamId: { from: 'onboard', to: 'network' },
    assigneeId: { from: 'rui', to: null },
  };
  const routed: Changes = { assigneeId: { from: null, to: 'clara' }, groupId: { from: null, to: 'night' } };
  expect(inOne([given, routed])).toEqual({
    teamId: { from: 'onboard', to: 'network' },
    assigneeId: { from: 'rui', to: 'clara' },
    groupId: { from: null, to: 'night' },
  });
  expect(inOne([])).toEqual({});
});
