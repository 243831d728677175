import { planCardMove, type Card } from './board';

const card = (state: Card['state'], more: Partial<Card> = {}): Card => ({
  ...{ state, heldFor: state === 'held' ? 'supplier' : null, assigneeId: null, teamId: 'onboard' },
  ...more,
});

test.each([
  [card('received'), 'state', 'inWork', 'take'],
  [card('held'), 'state', 'inWork', 'resume'],
  [card('inWork'), 'state', 'held', 'hold'],
  [card('inWork'), 'state', 'done', 'finish'],
  [card('inWork'), 'heldFor', 'supplier', 'hold'],
  [card('held'), 'heldFor', null, 'resume'],
  [card('inWork'), 'teamId', 'network', 'give'],
  [card('inWork'), 'assigneeId', 'rui', 'give'],
] as const)('%j dragged by %s to %s is a %s', (given, by, to, name) => {
  expect(planCardMove(given, by, to)).toMatchObject({ kind: 'move', name });
});

test.each([
  [card('inWork'), 'state', 'received'],
  [card('closed'), 'state', 'inWork'],
  [card('held', { heldFor: 'approval' }), 'state', 'done'],
  [card('inWork'), 'heldFor', 'approval'],
  [card('inWork'), 'teamId', null],
] as const)('%j goes nowhere by %s to %s', (given, by, to) => {
  expect(planCardMove(given, by, to)).toBeNull();
});

test('a label or a priority is a change of a fact', () => {
  expect(planCardMove(card('inWork'), 'progressId', 'lost')).toEqual({
    kind: 'fact',
    fact: 'progressId',
    value: 'lost',
  });
  expect(planCardMove(card('inWork'), 'priority', 'P1')).toEqual({
    kind: 'fact',
    fact: 'priority',
    value: 'P1',
  });
});
