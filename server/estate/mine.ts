import type { api } from '../../contract';
import type { BodyOf } from '../../contract/endpoint';
import type { OwnThing } from '../../contract/estate';
import type { ThingClaim } from '../../contract/estateNames';
import type { Answers, FormDefinition } from '../../core/forms';
import { findLastResort } from '../catalogue/lastResort';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { createTicket } from '../tickets/create';
import type { Changing, Viewing, WorkOfViewer } from '../unitOfWork';
import { claimWithin } from './acts';
import { readKinds } from './kinds';
import type { ThingRow } from './model';

/** What someone has, with what they may say of it. */
export async function listMine({ listo, viewer }: Viewing): Promise<OwnThing[]> {
  const { db } = listo;
  const rows = await db.tables.things.find({ holderId: viewer.id }, { order: ['name', 'id'] });
  const kinds = await readKinds({ listo });
  const ids = rows.map(({ id }) => id);
  const open = await db.select<{ thingId: string; number: number; title: string }>(
    `SELECT x.thingId, t.number, t.title FROM ticket_things x JOIN tickets t ON t.number = x.ticketNumber
     WHERE x.thingId IN (:ids) AND t.requesterId = :me AND t.state IN ('received', 'inWork', 'held') ORDER BY t.number`,
    { ids: ids.length > 0 ? ids : [''], me: viewer.id },
  );
  return rows.map((row) => {
    const { id, name, kindId, tag, model, serial, state, lentUntil, warrantyUntil, claim } = row;
    return {
      ...{
        id,
        name,
        kind: kinds.get(kindId)!.name,
        tag,
        model,
        serial,
        state,
        lentUntil,
        warrantyUntil,
        claim,
      },
      ...{
        handedAt: row.handedAt,
        isAsked: row.handedAt !== null && row.confirmedAt === null && claim === null,
      },
      openTickets: open
        .filter(({ thingId }) => thingId === id)
        .map(({ number, title }) => ({ number, title })),
    };
  });
}

type Said = BodyOf<typeof api.estate.say>;
const CLAIMS: Record<Said['say'], ThingClaim | null> = {
  ...{ have: null, broken: null, haveNot: 'haveNot', lost: 'lost', returned: 'returned' },
};

/** What somebody has, locked. @throws ProblemError where it is not theirs */
async function requireOwn({ listo, tx, viewer }: WorkOfViewer, id: string): Promise<ThingRow> {
  const thing = await listo.db.tables.things.findOne({ id }, tx, true);
  if (thing?.holderId !== viewer.id) throw new ProblemError('notFound');
  return thing;
}

/** Notes what its holder says of a thing. Whoever says anything of it but that they never got it, has had it. */
async function note(work: WorkOfViewer, id: string, say: Said['say']): Promise<void> {
  const thing = await requireOwn(work, id);
  const claim = CLAIMS[say];
  if (say === 'broken' || (claim === thing.claim && say !== 'have')) return;
  const isHad = say !== 'haveNot';
  await claimWithin(work, thing, {
    claim,
    ...(isHad && { confirmedAt: thing.confirmedAt ?? work.listo.clock.now() }),
  });
}

/** What a form can be told of the thing and of what happened to it. */
function toAnswers({ fields }: FormDefinition, thing: ThingRow, words: string): Answers {
  const asset = fields.find(
    ({ kind, assetKind }) => kind === 'asset' && (assetKind === undefined || assetKind === thing.kindId),
  );
  const long = fields.find(({ kind }) => kind === 'longText');
  return {
    ...(asset && { [asset.name]: { id: thing.id, name: thing.name } }),
    ...(long && words !== '' && { [long.name]: words }),
  };
}

const TITLE_LIMIT = 200;
/** The name of the thing and the first line of what is said of it. */
const titleOf = ({ name }: ThingRow, words: string): string =>
  [name, words.split('\n')[0]!.trim()]
    .filter((part) => part !== '')
    .join(': ')
    .slice(0, TITLE_LIMIT);

/**
 * Says something of a thing that one has. What is broken or lost becomes a ticket about it at once.
 * @returns the number of the ticket; null: none was needed
 */
export async function sayOfMine(
  { listo, viewer, actor }: Changing,
  id: string,
  { say, words }: Said,
): Promise<{ number: number | null }> {
  const by = { listo, viewer };
  if (say !== 'broken' && say !== 'lost')
    return change(listo, actor, async (tx) => {
      await note({ ...by, tx }, id, say);
      return { number: null };
    });
  const thing = await listo.db.tables.things.findOne({ id, holderId: viewer.id });
  if (!thing) throw new ProblemError('notFound');
  const kind = await listo.db.tables.thingKinds.findOne({ id: thing.kindId });
  const serviceId = kind?.serviceId ?? (await findLastResort(listo));
  const service = (await listo.db.tables.services.findOne({ id: serviceId }))!;
  const said = words.trim();
  return createTicket(
    { listo, viewer, actor },
    {
      ...{ serviceId, title: titleOf(thing, said), answers: toAnswers(service.form, thing, said) },
      ...{ fileIds: [], alsoToldIds: [], via: 'portal' },
    },
    {
      isLenient: true,
      async after(tx, ticketNumber) {
        const tie = {
          ticketNumber,
          thingId: id,
          how: 'about',
          isAnswer: false,
          at: listo.clock.now(),
        } as const;
        const { ticketThings } = listo.db.tables;
        if (!(await ticketThings.findOne({ ticketNumber, thingId: id }, tx)))
          await ticketThings.insert(tie, tx);
        await note({ ...by, tx }, id, say);
      },
    },
  );
}
