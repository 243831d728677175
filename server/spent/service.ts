import { nanoid } from 'nanoid';
import type { api } from '../../contract';
import type { BodyOf, QueryOf } from '../../contract/endpoint';
import { checkSpent, readTimer } from '../../core/spent';
import type { LocalText } from '../../core/forms';
import { isAgent } from '../../core/rights';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import type { Listo } from '../listo';
import { readPeople } from '../people/names';
import type { SignedIn } from '../sessions/viewer';
import { requireTicket } from '../tickets/guard';
import { recordChange } from '../tickets/record';
import { visibleTo } from '../tickets/visibility';
import type { SpentRow } from './model';
import { hiddenFrom } from '../tickets/hidden';
import type { Changing, UnitOfWork } from '../unitOfWork';

type Written = BodyOf<typeof api.spent.add>;
type Stop = BodyOf<typeof api.spent.stop>;

function refuseWritten(written: Written, now: number): void {
  const problems = checkSpent(written, now);
  if (problems.length > 0) throw new ProblemError('fieldsNotValid', { fields: problems });
}

export async function readMyTimer(listo: Listo, viewer: SignedIn) {
  const row = await listo.db.tables.spent.findOne({ runningFor: viewer.id });
  if (!row) return { timer: null };
  const isHidden = await hiddenFrom(listo, viewer, [row.ticketNumber]);
  const ticket = isHidden(row.ticketNumber)
    ? null
    : await listo.db.tables.tickets.findOne({ number: row.ticketNumber });
  const { isLeftOn } = readTimer(row.startedAt, listo.clock.now());
  const { id, ticketNumber: number, startedAt } = row;
  return { timer: { id, number, title: ticket?.title ?? '', startedAt, isLeftOn } };
}

/** Ends a running timer: with what it says or, where it was left on, with what its person says. */
async function end(
  { listo, tx }: UnitOfWork,
  row: SpentRow,
  { minutes, category, note }: Stop,
): Promise<number> {
  const read = readTimer(row.startedAt, listo.clock.now());
  if (read.isLeftOn && minutes === undefined)
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'minutes', code: 'leftOn' }] });
  const said = minutes ?? read.minutes;
  refuseWritten({ minutes: said, startedAt: row.startedAt, category, note }, listo.clock.now());
  const isByHand = minutes !== undefined && minutes !== read.minutes;
  await listo.db.tables.spent.update(
    { id: row.id },
    { minutes: said, category, note, isByHand, runningFor: null },
    tx,
  );
  return said;
}

/** Starts the viewer's timer on a ticket; the one that runs stops, unless it was left on: that is asked about first. */
export async function startTimer({ listo, viewer, actor }: Changing, number: number) {
  return change(listo, actor, async (tx) => {
    await requireTicket({ listo, viewer, tx }, { number, action: 'note' });
    const { spent } = listo.db.tables;
    const running = await spent.findOne({ runningFor: viewer.id }, tx, true);
    if (running?.ticketNumber === number) return { id: running.id, stopped: null };
    if (running) await end({ listo, tx }, running, { category: running.category, note: running.note });
    const id = nanoid(16);
    await spent.insert(
      {
        ...{ id, personId: viewer.id, ticketNumber: number, startedAt: listo.clock.now(), minutes: null },
        ...{ category: 'working', note: '', isByHand: false, runningFor: viewer.id },
      },
      tx,
    );
    return { id, stopped: running?.ticketNumber ?? null };
  });
}

export async function stopTimer({ listo, viewer, actor }: Changing, body: Stop) {
  return change(listo, actor, async (tx) => {
    const running = await listo.db.tables.spent.findOne({ runningFor: viewer.id }, tx, true);
    if (!running) throw new ProblemError('moveNotAllowed');
    return { minutes: await end({ listo, tx }, running, body) };
  });
}

export async function readSpent(listo: Listo, viewer: SignedIn, number: number) {
  const { ticket } = await requireTicket({ listo, viewer }, { number, action: 'readNotes' });
  const rows = await listo.db.tables.spent.find({ ticketNumber: number }, { order: ['startedAt'] });
  const people = await readPeople(
    listo,
    rows.map(({ personId }) => personId),
  );
  return {
    entries: rows.map(({ personId, ticketNumber: _, runningFor: __, ...row }) => ({
      ...row,
      person: people.get(personId) ?? null,
      isMine: personId === viewer.id,
    })),
    minutes: rows.reduce((sum, { minutes }) => sum + (minutes ?? 0), 0),
    estimate: ticket.estimateMinutes,
  };
}

export async function addSpent({ listo, viewer, actor }: Changing, number: number, body: Written) {
  refuseWritten(body, listo.clock.now());
  return change(listo, actor, async (tx) => {
    await requireTicket({ listo, viewer, tx }, { number, action: 'note' });
    const id = nanoid(16);
    const whose = { id, personId: viewer.id, ticketNumber: number, isByHand: true, runningFor: null };
    await listo.db.tables.spent.insert({ ...body, ...whose }, tx);
    return { id };
  });
}

async function requireMine({ listo, tx }: UnitOfWork, viewer: SignedIn, id: string): Promise<SpentRow> {
  const row = await listo.db.tables.spent.findOne({ id, personId: viewer.id }, tx, true);
  if (!row) throw new ProblemError('notFound');
  return row;
}

export async function changeSpent({ listo, viewer, actor }: Changing, id: string, body: Written) {
  refuseWritten(body, listo.clock.now());
  return change(listo, actor, async (tx) => {
    await requireMine({ listo, tx }, viewer, id);
    await listo.db.tables.spent.update({ id }, { ...body, isByHand: true, runningFor: null }, tx);
    return OK;
  });
}

export async function removeSpent({ listo, viewer, actor }: Changing, id: string) {
  return change(listo, actor, async (tx) => {
    await requireMine({ listo, tx }, viewer, id);
    await listo.db.tables.spent.remove({ id }, tx);
    return OK;
  });
}

export async function setEstimate(
  { listo, viewer, actor }: Changing,
  number: number,
  minutes: number | null,
) {
  return change(listo, actor, async (tx) => {
    const { ticket } = await requireTicket({ listo, viewer, tx }, { number, action: 'work' });
    await recordChange({ listo, tx }, ticket, {
      changes: { estimateMinutes: minutes },
      entry: {
        ...{ type: 'changed', actorId: viewer.id, via: 'desk', audience: 'team' },
      },
    });
    return OK;
  });
}

type By = QueryOf<typeof api.spent.sums>['by'];

const KEYS: Record<By, { key: string; name: string }> = {
  person: { key: 's.personId', name: 'pe.name' },
  service: { key: 't.serviceId', name: 'sv.title' },
  costCentre: { key: 'rq.costCentre', name: 'rq.costCentre' },
  ticket: { key: 't.number', name: "CONCAT(t.number, ' ', t.title)" },
  category: { key: 's.category', name: 's.category' },
};
const MOST_SUMS = 500;

/** Sums over the tickets that the viewer may see, of the people of their teams. */
export async function sumSpent(
  listo: Listo,
  viewer: SignedIn,
  { by, from, to }: QueryOf<typeof api.spent.sums>,
) {
  if (!isAgent(viewer)) throw new ProblemError('forbidden');
  const visible = visibleTo(viewer);
  const { key, name } = KEYS[by];
  const rows = await listo.db.select<{
    id: string | number;
    name: string | LocalText;
    minutes: number;
    byHand: number;
  }>(
    `SELECT ${key} AS id, MIN(${name}) AS name, CAST(SUM(s.minutes) AS SIGNED) AS minutes, CAST(SUM(IF(s.isByHand, s.minutes, 0)) AS SIGNED) AS byHand
     FROM time_spent s JOIN tickets t ON t.number = s.ticketNumber JOIN people pe ON pe.id = s.personId JOIN people rq ON rq.id = t.requesterId
       JOIN services sv ON sv.id = t.serviceId
     WHERE s.startedAt >= :from AND s.startedAt < :to AND s.minutes IS NOT NULL AND ${visible.sql}
       AND (s.personId = :viewerId OR s.personId IN (SELECT m.personId FROM team_members m WHERE m.teamId IN (:teamIds)))
     GROUP BY ${key} ORDER BY minutes DESC LIMIT :most`,
    { ...visible.values, from, to, most: MOST_SUMS },
  );
  return rows.map(({ id, name: said, ...sums }) => {
    const parsed = typeof said === 'string' && said.startsWith('{') ? (JSON.parse(said) as LocalText) : said;
    return {
      key: String(id),
      name: typeof parsed === 'string' ? { en: parsed, pt: parsed } : parsed,
      ...sums,
    };
  });
}
