import { DOORS } from '../tickets';
import { isNews, READERS, TOLD_EVENTS, whoIsTold, type Parties, type Reader, type ToldEvent } from './index';

const parties: Parties = {
  requester: ['requester'],
  alsoTold: ['alsoTold'],
  assignee: [],
  team: ['team'],
  approver: ['approver'],
  lead: ['lead'],
  mentioned: ['mentioned'],
  isAwaitingApproval: false,
};

/** Row by row: what is told to whom while nobody holds the ticket (x), and once someone does (o). */
const table: Record<ToldEvent, Partial<Record<Reader, 'x' | 'o' | 'xo'>>> = {
  sent: { team: 'x' },
  raisedFor: { requester: 'xo' },
  taken: { requester: 'xo' },
  answered: { requester: 'xo', alsoTold: 'xo', assignee: 'o', team: 'x' },
  noted: { assignee: 'o' },
  held: { requester: 'xo', alsoTold: 'xo' },
  givenOn: { requester: 'xo', assignee: 'o', team: 'x' },
  decided: { requester: 'xo', alsoTold: 'xo', assignee: 'o', team: 'x', approver: 'xo' },
  done: { requester: 'xo', alsoTold: 'xo' },
  reopened: { alsoTold: 'xo', assignee: 'o', team: 'x', lead: 'xo' },
  withdrawn: { requester: 'xo', alsoTold: 'xo', assignee: 'o', team: 'x', approver: 'xo' },
  warned: { assignee: 'o', team: 'x' },
  late: { assignee: 'o', team: 'x', lead: 'xo' },
  reminded: { assignee: 'o', team: 'x' },
  outOfHours: { requester: 'xo' },
  ruleSaid: { requester: 'xo', alsoTold: 'xo' },
  ruleTold: { assignee: 'o', team: 'x' },
  asked: { approver: 'xo' },
  questioned: { requester: 'xo', alsoTold: 'xo' },
  noApprover: { assignee: 'o', team: 'x', lead: 'xo' },
  stepYours: { team: 'x' },
  stepFailed: { assignee: 'o', team: 'x', lead: 'xo' },
  slipped: { assignee: 'o', team: 'x', lead: 'xo' },
  slipTold: { requester: 'xo', alsoTold: 'xo' },
  problemSolved: { requester: 'xo', alsoTold: 'xo', assignee: 'o' },
  problemBack: { assignee: 'o', team: 'x', lead: 'xo' },
  noticeTold: { requester: 'xo', alsoTold: 'xo' },
  sameMatter: { requester: 'xo', alsoTold: 'xo' },
  mentioned: { mentioned: 'xo' },
};

describe.each(TOLD_EVENTS)('%s', (event) => {
  test.each(READERS)('%s', (reader) => {
    const told = (given: Parties) => whoIsTold(event, given, 'someone else').some(({ as }) => as === reader);
    const cell = table[event][reader] ?? '';
    expect(told(parties)).toBe(cell.includes('x'));
    expect(told({ ...parties, assignee: ['assignee'] })).toBe(cell.includes('o'));
  });
});

test('nobody is told of their own act', () => {
  expect(whoIsTold('answered', parties, 'requester').map(({ personId }) => personId)).toEqual([
    'alsoTold',
    'team',
  ]);
});

test('someone in two relations is told once', () => {
  const both = { ...parties, alsoTold: ['requester'] };
  expect(whoIsTold('done', both, null)).toEqual([{ personId: 'requester', as: 'requester' }]);
});

test('the team learns of a request only when it is granted', () => {
  const waiting = { ...parties, isAwaitingApproval: true };
  expect(whoIsTold('sent', waiting, 'requester')).toEqual([]);
});

test('a target may name other readers than the table', () => {
  const told = whoIsTold('late', { ...parties, assignee: ['assignee'] }, null, ['approver', 'lead']);
  expect(told.map(({ as }) => as)).toEqual(['approver', 'lead']);
  expect(whoIsTold('late', parties, null, [])).toEqual([]);
});

test('what is brought over from a table is no news; what comes by any other door is', () => {
  expect(DOORS.filter((via) => !isNews({ via }))).toEqual(['table']);
});
