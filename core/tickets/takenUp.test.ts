import { getStateSentence, takenUpBy, type MoveName, type MoverRole, type SentenceFacts } from './index';

test.each<[string, MoveName, MoverRole, object, true | null, boolean | null]>([
  ['an agent takes it', 'take', 'agent', {}, true, true],
  ['an agent holds it', 'hold', 'agent', { heldFor: 'requester', message: 'Which?' }, true, true],
  ['an agent finishes it', 'finish', 'agent', { solution: 'Restarted' }, true, true],
  [
    'an agent gives it to a colleague, who has yet to begin',
    'give',
    'agent',
    { assigneeId: 'rui' },
    true,
    false,
  ],
  ['an agent gives it to another team', 'give', 'agent', { teamId: 'network' }, true, false],
  ['an agent gives it to themselves', 'give', 'agent', { assigneeId: 'bia' }, true, true],
  ['it goes to the next line by itself', 'give', 'system', { teamId: 'network' }, null, false],
  ['it goes on by itself', 'resume', 'system', {}, null, null],
  ['its plan is over', 'finish', 'system', { solution: 'All done' }, null, null],
  ['its requester confirms', 'confirm', 'requester', {}, null, null],
])('%s', (_, name, by, input, before, after) => {
  const actorId = by === 'system' ? null : 'bia';
  expect(takenUpBy({ name, by, actorId, input })).toEqual({ before, after });
});

test('what is merely given reads so, until its person has begun', () => {
  const facts: SentenceFacts = {
    ...{ state: 'received', heldFor: null, assigneeName: 'Bia', teamName: 'Service desk' },
    ...{ approverNames: [], heldUntil: null },
  };
  expect(getStateSentence({ ...facts, isTakenUp: false }).code).toBe('given');
  expect(getStateSentence({ ...facts, state: 'inWork', isTakenUp: false }).code).toBe('given');
  expect(getStateSentence({ ...facts, isTakenUp: true }).code).toBe('inWork');
  expect(getStateSentence({ ...facts, state: 'held', heldFor: 'date', isTakenUp: false }).code).toBe(
    'held.date',
  );
});
