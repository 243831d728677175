import type { ThingOnTicket } from '../../contract/estate';
import type { Tie } from '../../contract/estateNames';
import { fallsWith } from '../../core/estate';
import type { FormDefinition, Named } from '../../core/forms';
import { getOwn } from '../../core/records';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import { requireTicket } from '../tickets/guard';
import type { TicketRecord } from '../tickets/model';
import { recordChange } from '../tickets/record';
import type { Changing, UnitOfWork, Viewing } from '../unitOfWork';
import { readRefs, toCards } from './cards';
import { readSeenKinds } from './kinds';
import { readNetwork, standingOf } from './network';
import { readTicketsAbout } from './page';

/** The last so many other tickets of a thing are shown beside a ticket. */
const MOST_TICKETS = 5;

/** The things that were chosen in a form. */
function listAnswered({ answers }: TicketRecord, { fields }: FormDefinition): string[] {
  const chosen = fields
    .filter(({ kind }) => kind === 'asset')
    .map(({ name }) => getOwn(answers, name) as Named | null | undefined);
  return [...new Set(chosen.flatMap((named) => named?.id ?? []))];
}

/** Ties the things that were chosen in the form to the ticket, and takes off those that no longer are. */
export async function tieAnswered(
  { listo, tx }: UnitOfWork,
  ticket: TicketRecord,
  form: FormDefinition,
): Promise<void> {
  const { ticketThings } = listo.db.tables;
  const wanted = listAnswered(ticket, form);
  const { number: ticketNumber } = ticket;
  const before = await ticketThings.find({ ticketNumber }, { transaction: tx });
  for (const { thingId, isAnswer } of before)
    if (isAnswer && !wanted.includes(thingId)) await ticketThings.remove({ ticketNumber, thingId }, tx);
  const at = listo.clock.now();
  await ticketThings.insertAll(
    wanted
      .filter((id) => !before.some(({ thingId }) => thingId === id))
      .map((thingId) => ({ ticketNumber, thingId, how: 'about', isAnswer: true, at })),
    tx,
  );
}

/** Ties the things that a new ticket was sent with: most are sent with none, which costs nothing. */
export async function tieOpened(work: UnitOfWork, ticket: TicketRecord, form: FormDefinition): Promise<void> {
  if (listAnswered(ticket, form).length > 0) await tieAnswered(work, ticket, form);
}

/** What the form of another service does not ask for stays tied, as if by hand. */
export async function tieRefiled(
  work: UnitOfWork,
  ticket: TicketRecord,
  form: FormDefinition,
): Promise<void> {
  const { listo, tx } = work;
  const { number: ticketNumber } = ticket;
  const wanted = listAnswered(ticket, form);
  for (const { thingId, isAnswer } of await listo.db.tables.ticketThings.find(
    { ticketNumber },
    { transaction: tx },
  ))
    if (isAnswer && !wanted.includes(thingId))
      await listo.db.tables.ticketThings.update({ ticketNumber, thingId }, { isAnswer: false }, tx);
  await tieAnswered(work, ticket, form);
}

/** Says that a ticket is about a thing, or was caused by it. */
export function tieThing(
  { listo, viewer, actor }: Changing,
  number: number,
  { thingId, how }: { thingId: string; how: Tie },
): Promise<{ ok: true }> {
  return change(listo, actor, async (tx) => {
    const { tables } = listo.db;
    const { ticket } = await requireTicket({ listo, viewer, tx }, { number, action: 'note' });
    const thing = await tables.things.findOne({ id: thingId }, tx);
    const kinds = await readSeenKinds({ listo, viewer });
    if (!thing || !kinds.has(thing.kindId))
      throw new ProblemError('fieldsNotValid', { fields: [{ field: 'thingId', code: 'notAChoice' }] });
    const before = await tables.ticketThings.findOne({ ticketNumber: number, thingId }, tx);
    if (before?.how === how) return OK;
    if (before) await tables.ticketThings.update({ ticketNumber: number, thingId }, { how }, tx);
    else
      await tables.ticketThings.insert(
        { ticketNumber: number, thingId, how, isAnswer: false, at: listo.clock.now() },
        tx,
      );
    await recordChange({ listo, tx }, ticket, {
      changes: {},
      entry: {
        ...{ type: 'thingTied', actorId: viewer.id, via: 'desk', audience: 'team' },
        data: { thingId, name: thing.name, how },
      },
    });
    return OK;
  });
}

/** Takes a thing off a ticket; one that the form asked for is changed there. */
export function untieThing(
  { listo, viewer, actor }: Changing,
  { number, thingId }: { number: number; thingId: string },
): Promise<{ ok: true }> {
  return change(listo, actor, async (tx) => {
    const { tables } = listo.db;
    const { ticket } = await requireTicket({ listo, viewer, tx }, { number, action: 'note' });
    const before = await tables.ticketThings.findOne({ ticketNumber: number, thingId }, tx);
    if (!before) return OK;
    if (before.isAnswer)
      throw new ProblemError('fieldsNotValid', { fields: [{ field: 'thingId', code: 'isAnswer' }] });
    await tables.ticketThings.remove({ ticketNumber: number, thingId }, tx);
    const thing = await tables.things.findOne({ id: thingId }, tx);
    await recordChange({ listo, tx }, ticket, {
      changes: {},
      entry: {
        ...{ type: 'thingUntied', actorId: viewer.id, via: 'desk', audience: 'team' },
        data: { thingId, name: thing?.name ?? thingId },
      },
    });
    return OK;
  });
}

/** The things of a ticket that someone sees, with what is known of each. */
export async function readThingsOf({ listo, viewer }: Viewing, number: number): Promise<ThingOnTicket[]> {
  await listo.db.transaction((tx) => requireTicket({ listo, viewer, tx }, { number, action: 'readNotes' }));
  const ties = await listo.db.tables.ticketThings.find(
    { ticketNumber: number },
    { order: ['at', 'thingId'] },
  );
  if (ties.length === 0) return [];
  const kinds = await readSeenKinds({ listo, viewer });
  const rows = (await listo.db.tables.things.find({ id: ties.map(({ thingId }) => thingId) })).filter(
    ({ kindId }) => kinds.has(kindId),
  );
  const ordered = ties.flatMap(({ thingId }) => rows.find(({ id }) => id === thingId) ?? []);
  const network = await readNetwork(listo);
  const { needs, index, base, isFailed } = network;
  const cards = await toCards({ listo, viewer }, ordered, (kindId) => kinds.get(kindId)!.name);
  const about = await readTicketsAbout(
    { listo, viewer },
    ordered.map(({ id }) => id),
    { most: MOST_TICKETS, except: number },
  );
  const refs = (ids: string[]) =>
    readRefs({ listo, viewer }, network, [...new Set(ids)].slice(0, MOST_TICKETS));
  return Promise.all(
    ordered.map(async ({ id, contract }, i) => {
      const { how, isAnswer } = ties.find(({ thingId }) => thingId === id)!;
      const { tickets, count } = about.get(id)!;
      const { down } = fallsWith({ needs, index }, id, { base, isFailed });
      return {
        ...cards[i]!,
        ...{ how, isAnswer, contract, standing: standingOf(network, id) },
        needs: await refs((index.ofThing.get(id) ?? []).flatMap((place) => needs[place]!.of)),
        neededBy: await refs((index.ofMember.get(id) ?? []).map((place) => needs[place]!.thing)),
        downCount: down.filter((each) => kinds.has(network.things.get(each)!.kindId)).length,
        ...{ tickets, ticketCount: count },
      };
    }),
  );
}
