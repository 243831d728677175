import fc from 'fast-check';
import {
  HELD_FOR,
  listMoves,
  MOVE_NAMES,
  planMove,
  TICKET_STATES,
  type MovableTicket,
  type MoveInput,
  type MoveName,
  type MoverRole,
} from './index';

const now = 1_000_000;
const received: MovableTicket = { state: 'received', heldFor: null, assigneeId: null };
const inWork: MovableTicket = { state: 'inWork', heldFor: null, assigneeId: 'bia' };

function plan(ticket: MovableTicket, name: MoveName, by: MoverRole, input: MoveInput = {}) {
  return planMove(ticket, { name, by, actorId: 'bia', input, now });
}

/** Who may do what from where. */
test.each<[Partial<MovableTicket>, MoverRole, MoveName[]]>([
  [{ state: 'received' }, 'agent', ['take', 'hold', 'finish', 'give', 'withdraw']],
  [{ state: 'received' }, 'requester', ['withdraw']],
  [{ state: 'inWork' }, 'agent', ['take', 'hold', 'finish', 'give', 'withdraw']],
  [{ state: 'held', heldFor: 'requester' }, 'agent', ['take', 'resume', 'finish', 'give', 'withdraw']],
  [{ state: 'held', heldFor: 'approval' }, 'agent', ['withdraw']],
  [{ state: 'held', heldFor: 'approval' }, 'requester', ['withdraw']],
  [{ state: 'held', heldFor: 'approval' }, 'system', ['withdraw', 'grant', 'decline']],
  [{ state: 'done' }, 'requester', ['confirm', 'reopen']],
  [{ state: 'done' }, 'agent', ['reopen']],
  [{ state: 'done' }, 'system', ['close']],
  [{ state: 'closed' }, 'requester', []],
  [{ state: 'withdrawn' }, 'agent', []],
])('%j as %s', (ticket, by, expected) => expect(listMoves({ ...received, ...ticket }, by)).toEqual(expected));

test('taking puts a received ticket in work and leaves a held one held', () => {
  expect(plan(received, 'take', 'agent')).toMatchObject({
    ok: true,
    changes: { assigneeId: 'bia', state: 'inWork' },
  });
  const taken = plan({ state: 'held', heldFor: 'supplier', assigneeId: null }, 'take', 'agent');
  expect(taken).toMatchObject({ ok: true, changes: { assigneeId: 'bia' } });
  expect(taken).not.toHaveProperty('changes.state');
});

test('holding for the requester needs the question, which they read', () => {
  const missing = plan(inWork, 'hold', 'agent', { heldFor: 'requester', message: '  ' });
  expect(missing).toEqual({ ok: false, reason: 'fields', problems: [{ field: 'message', code: 'missing' }] });
  const held = plan(inWork, 'hold', 'agent', { heldFor: 'requester', message: 'Which kiosk?' });
  expect(held).toMatchObject({
    ok: true,
    message: 'Which kiosk?',
    changes: { state: 'held', heldReason: 'Which kiosk?' },
  });
});

test('nobody holds for an approval by hand, nor until a date that has passed', () => {
  expect(plan(inWork, 'hold', 'agent', { heldFor: 'approval' })).toMatchObject({
    problems: [{ field: 'heldFor' }],
  });
  expect(plan(inWork, 'hold', 'agent', { heldFor: 'date', until: now })).toMatchObject({
    problems: [{ field: 'until' }],
  });
});

test('done needs words on how; the requester reads them unless given others', () => {
  expect(plan(inWork, 'finish', 'agent')).toMatchObject({
    problems: [{ field: 'solution', code: 'missing' }],
  });
  expect(plan(inWork, 'finish', 'agent', { solution: 'New key pushed' })).toMatchObject({
    message: 'New key pushed',
    changes: { state: 'done', solution: 'New key pushed', resolvedAt: now },
  });
});

test('still broken goes back to the same agent', () => {
  const done: MovableTicket = { ...inWork, state: 'done' };
  expect(plan(done, 'reopen', 'requester', { stillBroken: 'Freezes again' })).toMatchObject({
    ok: true,
    message: 'Freezes again',
    changes: { state: 'inWork', resolvedAt: null },
  });
});

test('what goes by itself holds it without words, and says why it withdraws it', () => {
  expect(plan(inWork, 'hold', 'system', { heldFor: 'requester' })).toMatchObject({ ok: true });
  expect(plan(inWork, 'hold', 'system', { heldFor: 'date' })).toMatchObject({ ok: false });
  expect(plan(inWork, 'withdraw', 'system')).toMatchObject({ ok: false });
});

test('an agent says why they withdraw it, a requester need not', () => {
  expect(plan(inWork, 'withdraw', 'agent')).toMatchObject({
    problems: [{ field: 'reason', code: 'missing' }],
  });
  expect(plan(inWork, 'withdraw', 'requester')).toMatchObject({ ok: true, changes: { state: 'withdrawn' } });
});

test('a rating is one of five steps', () => {
  const done: MovableTicket = { ...inWork, state: 'done' };
  expect(plan(done, 'confirm', 'requester', { rating: 6 })).toMatchObject({
    problems: [{ field: 'rating' }],
  });
  expect(plan(done, 'confirm', 'requester', { rating: 5 })).toMatchObject({
    ok: true,
    changes: { state: 'closed', rating: 5 },
  });
});

test('what is not offered is not accepted, and being held always says for whom', () => {
  const ticket = fc.record<MovableTicket>({
    state: fc.constantFrom(...TICKET_STATES),
    heldFor: fc.constantFrom(null, ...HELD_FOR),
    assigneeId: fc.constantFrom(null, 'bia'),
  });
  const roles = fc.constantFrom<MoverRole>('agent', 'requester', 'system');
  const input: MoveInput = { heldFor: 'supplier', solution: 's', reason: 'r', teamId: 't', stillBroken: 'b' };
  fc.assert(
    fc.property(ticket, roles, fc.constantFrom(...MOVE_NAMES), (before, by, name) => {
      fc.pre((before.state === 'held') === (before.heldFor !== null));
      const planned = plan(before, name, by, input);
      expect(planned.ok).toBe(listMoves(before, by).includes(name));
      if (!planned.ok) return;
      const after = { ...before, ...planned.changes };
      expect(after.state === 'held').toBe(after.heldFor !== null);
    }),
  );
});
