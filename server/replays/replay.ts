import type { Asked, ReplayResult } from '../../contract/compliance';
import { compileCalendar } from '../../core/calendar';
import { changesSides, movesFor, reassign, tally, type Reassignment } from '../../core/compliance';
import type { Language } from '../../core/forms';
import type { Viewer } from '../../core/rights';
import {
  replayClock,
  standingOf,
  type Calendars,
  type HistoryEvent,
  type Standing,
  type TargetDefinition,
} from '../../core/targets';
import { toHistory } from '../../core/tickets';
import { editionFor, inEdition, readEditions, toNewTarget, type Editions } from '../clocks/editions';
import type { TargetRow } from '../clocks/model';
import { listTargets } from '../clocks/read';
import type { JournalRow } from '../journal/model';
import type { Listo } from '../listo';
import { visibleTo } from '../tickets/visibility';
import { Sums, type ReplayedTicket as Ticket } from './sums';
import { hasOwn } from '../../core/records';

const CHUNK = 500;
const LISTED = 300;

type Entry = Pick<JournalRow, 'ticketNumber' | 'work' | 'at' | 'changes'>;
type Progress = (done: number, total: number) => Promise<boolean>;

/** The promises that a change touches: those that are changed, those that go by a changed calendar, all for other teams. */
function touched(targets: TargetRow[], { targets: changed, calendars, moves }: Asked): TargetRow[] {
  if (moves.length > 0) return targets;
  const ids = new Set(changed.map(({ id }) => id));
  const goesBy = ({ definition }: TargetRow): boolean =>
    definition.calendars.some(({ calendarId }) => hasOwn(calendars, calendarId));
  return targets.filter((target) => ids.has(target.id) || goesBy(target));
}

type Judged = { standing: Standing | null; dueAt: number | null };

function judge(
  definition: TargetDefinition,
  calendars: Calendars,
  { history, now }: { history: HistoryEvent[]; now: number },
): Judged {
  const { reading } = replayClock(definition, calendars, history, now);
  return { standing: standingOf(reading, now), dueAt: reading.dueAt };
}

type Step = {
  tickets: Ticket[];
  entries: Entry[];
  known: Map<string, number>;
  rows: TargetRow[];
  editions: Editions;
  changed: Map<string, TargetDefinition>;
  calendars: { before: Calendars; after: Calendars };
  moves: Reassignment[];
  now: number;
};

function replayChunk(
  sums: Sums,
  { tickets, entries, known, rows, editions, changed, calendars, moves, now }: Step,
): void {
  const byWork = new Map<string, Entry[]>();
  for (const entry of entries) {
    const key = `${entry.ticketNumber} ${entry.work}`;
    const own = byWork.get(key);
    if (own) own.push(entry);
    else byWork.set(key, [entry]);
  }
  const byNumber = new Map(tickets.map((ticket) => [ticket.number, ticket]));
  for (const [key, own] of byWork) {
    const ticket = byNumber.get(own[0]!.ticketNumber!)!;
    const work = own[0]!.work;
    const history = toHistory(own, work);
    const ofTeams = movesFor(moves, ticket.serviceId);
    const other = ofTeams.size === 0 ? history : reassign(history, ofTeams);
    for (const row of rows) {
      const edition = known.get(`${key} ${row.id}`) ?? editionFor(row, own[0]!.at);
      const was = edition === 0 ? null : inEdition(row, edition, editions).definition;
      const before: Judged = was
        ? judge(was, calendars.before, { history, now })
        : { standing: null, dueAt: null };
      const after = judge(changed.get(row.id) ?? was ?? row.definition, calendars.after, {
        history: other,
        now,
      });
      sums.add(ticket, row.id, { before: before.standing, after: after.standing });
      if (!changesSides(before.standing, after.standing)) continue;
      sums.changed++;
      if (sums.flips.length < LISTED)
        sums.flips.push({
          ...{ number: ticket.number, title: ticket.title, target: row.definition.name },
          ...{
            before: before.standing,
            after: after.standing,
            dueBefore: before.dueAt,
            dueAfter: after.dueAt,
          },
        });
    }
  }
}

/**
 * Reads the clocks of all tickets of a period that someone may see, as they are promised and as they would be, from the
 * journal alone. `onProgress` is told how far it is after each chunk, and says whether to go on.
 */
export async function replay(
  listo: Listo,
  viewer: Viewer & { language: Language },
  { asked, onProgress }: { asked: Asked; onProgress: Progress },
): Promise<ReplayResult | null> {
  const { select } = listo.db;
  const began = performance.now();
  const now = listo.clock.now();
  const latest = await listTargets(listo);
  const added = asked.targets.filter(({ id }) => !latest.some((target) => target.id === id));
  const rows = [
    ...touched(latest, asked),
    // A promise that there is not yet: nothing was promised before.
    ...added.map((each) => toNewTarget(each, Number.MAX_SAFE_INTEGER)),
  ];
  const editions = await readEditions(listo);
  const present = await listo.calendars.getAll();
  const other = Object.entries(asked.calendars).map(([id, spec]) => [id, compileCalendar(spec)]);
  const calendars = { before: present, after: { ...present, ...Object.fromEntries(other) } as Calendars };
  const changed = new Map(asked.targets.map(({ id, definition }) => [id, definition]));
  const { sql, values } = visibleTo(viewer);
  const within = `t.createdAt >= :from AND t.createdAt < :to AND ${sql}`;
  const period = { ...values, from: asked.from, to: asked.to };
  const [count] = await select<{ count: number }>(
    `SELECT COUNT(*) AS count FROM tickets t WHERE ${within}`,
    period,
  );
  const total = count!.count;
  const sums = new Sums();
  let done = 0;
  for (let after = 0; ;) {
    const tickets = await select<Ticket>(
      `SELECT t.number, t.title, t.teamId, t.serviceId, t.priority, t.kind FROM tickets t
       WHERE t.number > :after AND ${within} ORDER BY t.number LIMIT ${CHUNK}`,
      { ...period, after },
    );
    if (tickets.length === 0) break;
    after = tickets.at(-1)!.number;
    const numbers = tickets.map(({ number }) => number);
    const entries = await select<Entry>(
      "SELECT ticketNumber, work, at, changes FROM journal WHERE ticketNumber IN (:numbers) AND changes <> '{}' ORDER BY id",
      { numbers },
    );
    const clocks =
      editions.size === 0
        ? []
        : await select<{ ticketNumber: number; work: string; targetId: string; edition: number }>(
            'SELECT ticketNumber, work, targetId, edition FROM clocks WHERE ticketNumber IN (:numbers) AND targetId IN (:ids)',
            { numbers, ids: [...rows.map(({ id }) => id), ''] },
          );
    const known = new Map(
      clocks.map(({ ticketNumber, work, targetId, edition }) => [
        `${ticketNumber} ${work} ${targetId}`,
        edition,
      ]),
    );
    replayChunk(sums, {
      ...{ tickets, entries, known, rows, editions, changed, calendars, now },
      moves: asked.moves,
    });
    done += tickets.length;
    if (!(await onProgress(done, total))) return null;
  }
  return {
    ...{ tickets: done, clocks: sums.clocks, changed: sums.changed, flips: sums.flips },
    all: { before: tally(sums.all.before), after: tally(sums.all.after) },
    targets: sums.listTargets((id) => rows.find((row) => row.id === id)!.definition.name),
    groups: await sums.listGroups(listo, viewer.language),
    ms: Math.round(performance.now() - began),
  };
}
