import { Temporal } from 'temporal-polyfill';
import type { Condition } from '../../core/conditions';
import type { TicketState } from '../../core/tickets';
import { carriedBy, FALLS_DUE, type ListReader, type WorklistDefinition } from '../../core/worklist';
import type { Listo } from '../listo';
import { readPeople } from '../people/names';
import { valueSql } from './columns';
import { fromSql, type WorkQuery } from './query';
import { readZone } from './reader';
import { listQueries } from './shares';
import type { Viewing } from '../unitOfWork';

const DAYS = 7;
const MOST_COUNTED = 50_000;

type Counted = { assigneeId: string | null; state: TicketState; day: number | null; count: number };
export type Load = {
  states: Record<string, number>;
  /** By day: what falls due on each of the coming days. */
  dues: number[];
  past: number;
  later: number;
};

function emptyLoad(): Load {
  return { states: {}, dues: Array.from({ length: DAYS }, () => 0), past: 0, later: 0 };
}

/** Adds to someone's load; a due instant before now is past, today's rest is the first day. */
function add(load: Load, { state, day, count }: Counted): void {
  load.states[state] = (load.states[state] ?? 0) + count;
  if (!FALLS_DUE.includes(state) || day === null) return;
  if (day === 0) load.past += count;
  else if (day > DAYS) load.later += count;
  else load.dues[day - 1]! += count;
}

type Counting = { reader: ListReader; ends: number[] };

/** Counts work by who has it, its state, and the day on which it falls due. */
async function count(listo: Listo, queries: WorkQuery[], { reader, ends }: Counting): Promise<Counted[]> {
  const counted = await Promise.all(
    queries.map((query) => {
      const valueOf = (field: string): string => valueSql(query.work, field);
      const due = valueOf('dueAt');
      return listo.db.select<Counted>(
        `SELECT assigneeId, state, day, COUNT(*) AS count FROM (
           SELECT ${valueOf('assigneeId')} AS assigneeId, ${valueOf('state')} AS state,
             IF(${due} IS NULL, NULL, INTERVAL(${due}, :now, ${ends.join()})) AS day
           FROM ${fromSql(query.work)} WHERE ${query.where} LIMIT :most) x GROUP BY assigneeId, state, day`,
        { ...query.values, now: reader.now, most: MOST_COUNTED },
      );
    }),
  );
  return counted.flat();
}

/**
 * What each person of the viewer's teams, and each who has work of a list, carries: all of it, whatever list it stands in,
 * as far as the viewer may see it. What nobody has is that of the list.
 */
export async function readLoad(
  { listo, viewer }: Viewing,
  definition: Pick<WorklistDefinition, 'condition'>,
  where: Condition | null,
) {
  const { queries, reader } = await listQueries({ listo, viewer }, definition, where);
  const midnight = Temporal.Instant.fromEpochMilliseconds(reader.now)
    .toZonedDateTimeISO(await readZone(listo, viewer))
    .startOfDay();
  const ends = Array.from({ length: DAYS }, (_, i) => midnight.add({ days: i + 1 }).epochMilliseconds);
  const counting = { reader, ends };
  const members = await listo.db.select<{ personId: string; capacity: number | null; isAway: number }>(
    `SELECT m.personId, MAX(m.capacity) AS capacity,
       EXISTS (SELECT 1 FROM absences b WHERE b.personId = m.personId AND b.fromAt <= :now AND b.toAt > :now) AS isAway
     FROM team_members m JOIN people p ON p.id = m.personId AND p.leftAt IS NULL WHERE m.teamId IN (:teamIds) GROUP BY m.personId`,
    { teamIds: [...reader.teamIds, ''], now: reader.now },
  );
  const facts = new Map(members.map((member) => [member.personId, member]));
  const ofList = await count(listo, queries, counting);
  const ids = new Set([...ofList.map(({ assigneeId }) => assigneeId), null, ...facts.keys()]);
  const personIds = [...ids].filter((id) => id !== null);
  const carried = await listQueries({ listo, viewer }, { condition: carriedBy(personIds) }, null);
  const ofPeople = personIds.length === 0 ? [] : await count(listo, carried.queries, counting);
  const loads = new Map<string | null, Load>();
  for (const row of [...ofList.filter(({ assigneeId }) => assigneeId === null), ...ofPeople]) {
    const load = loads.get(row.assigneeId) ?? emptyLoad();
    loads.set(row.assigneeId, load);
    add(load, row);
  }
  const people = await readPeople(listo, [...ids]);
  const listed = [...ids].map((id) => ({
    person: id === null ? null : (people.get(id) ?? null),
    capacity: (id !== null && facts.get(id)?.capacity) || null,
    isAway: Boolean(id !== null && facts.get(id)?.isAway),
    ...(loads.get(id) ?? emptyLoad()),
  }));
  const isNobody = ({ person }: { person: unknown }): boolean => person === null;
  listed.sort(
    (one, other) =>
      Number(isNobody(other)) - Number(isNobody(one)) ||
      (one.person?.name ?? '').localeCompare(other.person?.name ?? ''),
  );
  return { days: [midnight.epochMilliseconds, ...ends.slice(0, -1)], people: listed };
}
