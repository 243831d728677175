import { factsOfEntry } from '../../core/journal';
import type { UnderAs } from '../../contract/together';
import { isOpen } from '../../core/tickets';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import type { Consumer } from '../journal/consumer';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { requireTicket } from '../tickets/guard';
import { answerAsTeam } from '../tickets/messages';
import type { TicketRecord } from '../tickets/model';
import { makeMove } from '../tickets/move';
import { recordChange } from '../tickets/record';
import { visibleTo } from '../tickets/visibility';
import type { Changing, UnitOfWork } from '../unitOfWork';

const NOT_HELD = { heldFor: null, heldUntil: null, heldReason: null } as const;
const refuse = (code: string) => new ProblemError('fieldsNotValid', { fields: [{ field: 'under', code }] });

/** What stands together with a ticket, as far as the viewer may read it. */
export async function readTogether(listo: Listo, viewer: SignedIn, number: number) {
  const { ticket } = await requireTicket({ listo, viewer }, { number, action: 'read' });
  const visible = visibleTo(viewer);
  const columns = 't.number, t.title, t.state';
  const [over] =
    ticket.underNumber === null
      ? []
      : await listo.db.select<Pick<TicketRecord, 'number' | 'title' | 'state'>>(
          `SELECT ${columns} FROM tickets t WHERE t.number = :under AND ${visible.sql}`,
          { ...visible.values, under: ticket.underNumber },
        );
  const below = await listo.db.select<Pick<TicketRecord, 'number' | 'title' | 'state'> & { as: UnderAs }>(
    `SELECT ${columns}, t.underAs AS \`as\` FROM tickets t WHERE t.underNumber = :number AND ${visible.sql} ORDER BY t.number LIMIT 200`,
    { ...visible.values, number },
  );
  return { under: over ? { ...over, as: ticket.underAs! } : null, below };
}

/** Those who follow the one come to follow the other; who came so is kept, so that it can be taken apart. */
async function bringFollowers(
  { listo, tx }: UnitOfWork,
  from: TicketRecord,
  to: TicketRecord,
): Promise<string[]> {
  const { followers } = listo.db.tables;
  const of = async (number: number) =>
    (await followers.find({ ticketNumber: number, role: 'alsoTold' }, { transaction: tx })).map(
      ({ personId }) => personId,
    );
  const there = new Set([to.requesterId, ...(await of(to.number))]);
  const coming = [...new Set([from.requesterId, ...(await of(from.number))])].filter((id) => !there.has(id));
  await followers.insertAll(
    coming.map((personId) => ({ ticketNumber: to.number, personId, role: 'alsoTold' as const })),
    tx,
  );
  return coming;
}

/**
 * Puts a ticket under another. The same matter goes on there alone: this one closes, its people follow the other, where
 * its thread is read too. One of many with a cause is held for it, and what is answered there is answered here.
 */
export async function putUnder(
  { listo, viewer, actor }: Changing,
  number: number,
  { under, as }: { under: number; as: UnderAs },
): Promise<{ ok: true }> {
  if (under === number) throw refuse('itself');
  return change(listo, actor, async (tx) => {
    // Always in the order of numbers, so that two people who do the opposite do not wait for each other.
    const found = new Map<number, TicketRecord | ProblemError>();
    for (const each of [number, under].sort((a, b) => a - b))
      found.set(
        each,
        await requireTicket({ listo, viewer, tx }, { number: each, action: 'work' }).then(
          (access) => access.ticket,
          (error: unknown) => {
            if (error instanceof ProblemError) return error;
            throw error;
          },
        ),
      );
    const ticket = found.get(number)!;
    // What may not be done with the ticket itself is said first, whichever was read first.
    if (ticket instanceof ProblemError) throw ticket;
    const over = found.get(under)!;
    if (over instanceof ProblemError) throw refuse('notAChoice');
    if (over.underNumber !== null) throw refuse(over.underNumber === number ? 'ring' : 'isUnder');
    if (ticket.underNumber !== null) throw refuse('isUnder');
    // Whoever reads the one comes to read the other: of what is in confidence nobody does.
    if (
      as === 'same' &&
      (over.isConfidential || ticket.isConfidential) &&
      over.requesterId !== ticket.requesterId
    )
      throw refuse('inConfidence');
    if (over.isConfidential !== ticket.isConfidential) throw refuse('inConfidence');
    const below = await listo.db.tables.tickets.findOne({ underNumber: number }, tx);
    if (below) throw refuse('hasOthers');
    if (!isOpen(ticket.state) || (ticket.state === 'held' && ticket.heldFor === 'approval'))
      throw new ProblemError('moveNotAllowed');
    const brought = as === 'same' ? await bringFollowers({ listo, tx }, ticket, over) : [];
    const state: Partial<TicketRecord> =
      as === 'same'
        ? { state: 'closed', closedAt: listo.clock.now(), ...NOT_HELD, waitsSince: null }
        : { state: 'held', heldFor: 'ticket', heldUntil: null, heldReason: String(under) };
    await recordChange({ listo, tx }, ticket, {
      changes: { ...state, underNumber: under, underAs: as },
      entry: {
        ...{ type: 'putUnder', actorId: viewer.id, via: 'desk' },
        data: { under, as, brought, overTitle: over.title },
      },
    });
    await recordChange({ listo, tx }, over, {
      changes: {},
      entry: {
        ...{ type: 'cameUnder', actorId: viewer.id, via: 'desk', audience: 'team' },
        data: { below: number, as },
      },
    });
    return OK;
  });
}

/** Puts many under one as their cause, each for itself: one that may not go there holds up no other. */
export async function putAllUnder(
  { listo, viewer, actor: { id } }: Changing,
  under: number,
  numbers: number[],
): Promise<{ put: number; refused: number[] }> {
  const refused: number[] = [];
  for (const number of new Set(numbers))
    await putUnder({ listo, viewer, actor: { id } }, number, { under, as: 'cause' }).catch(
      (error: unknown) => {
        if (!(error instanceof ProblemError)) throw error;
        refused.push(number);
      },
    );
  return { put: new Set(numbers).size - refused.length, refused };
}

/** Takes a ticket out from under the other: it goes on by itself, and who came along goes back with it. */
export async function takeApart({ listo, viewer, actor }: Changing, number: number): Promise<{ ok: true }> {
  return change(listo, actor, async (tx) => {
    const { tables, select } = listo.db;
    const { ticket } = await requireTicket({ listo, viewer, tx }, { number, action: 'work' });
    const { underNumber } = ticket;
    if (underNumber === null) throw new ProblemError('moveNotAllowed');
    const [entry] = await select<{ data: { brought: string[] } }>(
      "SELECT data FROM journal WHERE ticketNumber = :number AND type = 'putUnder' ORDER BY id DESC LIMIT 1",
      { number },
      tx,
    );
    for (const personId of entry?.data.brought ?? [])
      await tables.followers.remove({ ticketNumber: underNumber, personId, role: 'alsoTold' }, tx);
    const goesOn = {
      state: ticket.assigneeId === null ? ('received' as const) : ('inWork' as const),
      closedAt: null,
    };
    await recordChange({ listo, tx }, ticket, {
      changes: { ...goesOn, ...NOT_HELD, underNumber: null, underAs: null },
      entry: {
        ...{ type: 'takenApart', actorId: viewer.id, via: 'desk' },
        data: { under: underNumber },
      },
    });
    return OK;
  });
}

/** What is answered or done on a cause is answered or done on all that are under it. */
export const togetherConsumer: Consumer = {
  name: 'together',
  hears: ({ type, audience, ticketNumber, via }) =>
    ticketNumber !== null &&
    via !== 'rule' &&
    (type === 'done' || (type === 'answered' && audience === 'requester')),
  async handle(listo, said, tx) {
    const { tables } = listo.db;
    for (const entry of said) {
      const { ticketNumber, type, actorId } = entry;
      const { messageId } = factsOfEntry(entry);
      const below = await tables.tickets.find(
        { underNumber: ticketNumber, underAs: 'cause' },
        { transaction: tx },
      );
      if (below.length === 0) continue;
      const over = (await tables.tickets.findOne({ number: ticketNumber! }, tx))!;
      const message = messageId === undefined ? null : await tables.messages.findOne({ id: messageId }, tx);
      for (const { number } of below) {
        const ticket = await tables.tickets.findOne({ number }, tx, true);
        if (ticket?.underNumber !== ticketNumber) continue;
        if (type === 'answered' && message?.isByTeam && message.readBy === 'requester') {
          const { authorId, via, text, format, links } = message;
          const by = { actorId, via: 'rule', from: ticketNumber } as const;
          await answerAsTeam({ listo, tx }, ticket, {
            answer: { authorId, via, text, format, links },
            how: by,
          });
        }
        if (type === 'done' && isOpen(ticket.state)) {
          if (ticket.state === 'held')
            await makeMove({ listo, tx }, ticket, {
              name: 'resume',
              by: 'system',
              actorId: null,
              via: 'rule',
              input: {},
            });
          const input = { solution: over.solution, message: null };
          await makeMove({ listo, tx }, ticket, { name: 'finish', by: 'agent', actorId, via: 'rule', input });
        }
      }
    }
  },
};
