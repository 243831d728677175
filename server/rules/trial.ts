import type { RuleBody, RuleOnTicket, RuleTrial } from '../../contract/rules';
import {
  aroundRule,
  compareOrders,
  explainOnTicket,
  tryOnTicket,
  type PastTicket,
  type Rule,
  type WouldFire,
} from '../../core/rules';
import { maySetUp } from '../../core/rights';
import type { Listo } from '../listo';
import { requireTicket } from '../tickets/guard';
import { visibleTo } from '../tickets/visibility';
import type { Viewing } from '../unitOfWork';
import { toRule, type RuleRow } from './model';
import { PAST_SQL, readFields, readRules, toOccurrence, type PastRow } from './read';
import { placesOf, requireFit, toKept } from './keep';

const DAY_MS = 86_400_000;
/** So many entries are gone through at the most, the latest. */
const MOST_ENTRIES = 100_000;
/** So many are read, and so many tickets gone through, before others have their turn. */
const PART = 5_000;
const TICKETS_AT_ONCE = 200;
/** Of those on which it would have fired, the latest are shown. */
const MOST_SHOWN = 50;

const breathe = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

/** The latest entries of tickets that someone may read, since an instant, the latest first. */
async function readPast({ listo: { db }, viewer }: Viewing, since: number): Promise<PastRow[]> {
  const { sql, values } = visibleTo(viewer);
  const rows: PastRow[] = [];
  for (let before = Number.MAX_SAFE_INTEGER; rows.length < MOST_ENTRIES;) {
    const part = await db.select<PastRow>(
      `${PAST_SQL} WHERE j.id < :before AND ${sql} ORDER BY j.id DESC LIMIT :limit`,
      {
        ...{ ...values, before, limit: PART },
      },
    );
    const within = part.filter(({ at }) => at >= since);
    rows.push(...within);
    if (part.length < PART || within.length === 0) break;
    before = part.at(-1)!.id;
    await breathe();
  }
  return rows.slice(0, MOST_ENTRIES);
}

/** Tickets with what happened to them, the oldest first, in the order of their numbers. */
async function toTickets(listo: Listo, rows: PastRow[]): Promise<PastTicket[]> {
  const byNumber = new Map<number, PastRow[]>();
  for (const row of rows) {
    const own = byNumber.get(row.ticketNumber!) ?? [];
    own.push(row);
    byNumber.set(row.ticketNumber!, own);
  }
  const numbers = [...byNumber.keys()].sort((one, other) => one - other);
  const tickets: PastTicket[] = [];
  for (let i = 0; i < numbers.length; i += PART) {
    const part = numbers.slice(i, i + PART);
    const fields = await readFields(listo, part);
    for (const number of part) {
      const now = fields.get(number);
      const entries = byNumber.get(number)!.sort((one, other) => one.id - other.id);
      if (now) tickets.push({ number, now, entries: entries.map(toOccurrence) });
    }
    await breathe();
  }
  return tickets;
}

type Counts = Record<string, number>;
function addAll(counts: Counts, more: Counts): void {
  for (const [id, count] of Object.entries(more)) counts[id] = (counts[id] ?? 0) + count;
}

/** Counts of rules, with what these are called. */
const namedOf = (rows: RuleRow[]) => (counts: Counts) =>
  Object.entries(counts).map(([ruleId, count]) => ({
    ...{ id: ruleId, count },
    name: rows.find(({ id }) => id === ruleId)!.name,
  }));

/** The rule that is tried, in the place where it would stand. */
function toTried(rows: RuleRow[], { id, rule }: { id: string | null; rule: RuleBody }): Rule {
  const kept = toKept(rule);
  const row = rows.find((each) => each.id === id);
  const order = row?.position ?? (rows.at(-1)?.position ?? 0) + 1;
  return { id: id ?? '', order, isOn: true, teamId: kept.teamId, ...kept.definition };
}

async function showFired({ db }: Listo, fired: WouldFire[]): Promise<RuleTrial['fired']> {
  const latest = [...fired].sort((one, other) => other.at - one.at).slice(0, MOST_SHOWN);
  const tickets = await db.tables.tickets.find(
    { number: latest.map(({ number }) => number) },
    { attributes: ['number', 'title'] },
  );
  const titles = new Map(tickets.map(({ number, title }) => [number, title]));
  return latest.map(({ number, at, effects }) => ({ number, at, effects, title: titles.get(number) ?? '' }));
}

/** Tries a rule as it is written over the last days. Nothing is written; what the journal says is gone through once more. */
export async function tryRule(
  { listo, viewer }: Viewing,
  { id, rule, days }: { id: string | null; rule: RuleBody; days: number },
): Promise<RuleTrial> {
  await listo.db.transaction((tx) => requireFit({ listo, tx, viewer }, rule));
  const to = listo.clock.now();
  const from = to - days * DAY_MS;
  const all = await readRules(listo);
  const tried = toTried(all, { id, rule });
  const others = all.filter((row) => row.id !== tried.id && row.isOn).map(toRule);
  const rows = await readPast({ listo, viewer }, from);
  const tickets = await toTickets(listo, rows);
  const calendars = await listo.calendars.getAll();
  const fired: WouldFire[] = [];
  const [more, fewer]: [Counts, Counts] = [{}, {}];
  for (const [i, ticket] of tickets.entries()) {
    // A ticket in confidence is for the rules of its own team.
    if (ticket.now.isConfidential && tried.teamId !== ticket.now.teamId) continue;
    const trial = tryOnTicket(tried, { others, calendars, stretch: { from, to } }, ticket);
    fired.push(...trial.fired);
    addAll(more, trial.more);
    addAll(fewer, trial.fewer);
    if (i % TICKETS_AT_ONCE === 0) await breathe();
  }
  const nameOf = (ruleId: string) => all.find((row) => row.id === ruleId)!.name;
  const named = namedOf(all);
  const around = aroundRule(others, tried);
  const toNames = (rules: Rule[]) => rules.map((other) => ({ id: other.id, name: nameOf(other.id) }));
  return {
    ...{ entries: rows.length, isCut: rows.length === MOST_ENTRIES, count: fired.length },
    tickets: new Set(fired.map(({ number }) => number)).size,
    fired: await showFired(listo, fired),
    ...{ more: named(more), fewer: named(fewer) },
    ...{ before: toNames(around.before), after: toNames(around.after) },
  };
}

/** Each rule that has to do with a ticket: when it was asked, whether it fired, and else what kept it. */
export async function explainRules({ listo, viewer }: Viewing, number: number): Promise<RuleOnTicket[]> {
  const { ticket } = await listo.db.transaction((tx) =>
    requireTicket({ listo, viewer, tx }, { number, action: 'readNotes' }),
  );
  const rows = await listo.db.select<PastRow>(`${PAST_SQL} WHERE j.ticketNumber = :number ORDER BY j.id`, {
    number,
  });
  const now = (await readFields(listo, [number])).get(number)!;
  const past = { number, now, entries: rows.map(toOccurrence) };
  const runs = await listo.db.tables.ruleRuns.find({ ticketNumber: number }, { order: ['at'] });
  const own = (await readRules(listo)).filter(
    ({ teamId }) =>
      (teamId === null && !ticket.isConfidential) || teamId === ticket.teamId || maySetUp(viewer, teamId),
  );
  return own.flatMap((row) => {
    const fired = runs.filter(({ ruleId }) => ruleId === row.id).map(({ at, did }) => ({ at, did }));
    const asked = explainOnTicket(toRule(row), past);
    if (fired.length + asked.length === 0) return [];
    return [{ rule: { id: row.id, name: row.name, isOn: row.isOn }, fired, asked }];
  });
}

const ORDER_DAYS = 30;

/** What another order would have made otherwise over the last days. Nothing is written. */
export async function tryOrder({ listo, viewer }: Viewing, ids: string[]) {
  const all = await readRules(listo);
  const places = placesOf(viewer, all, ids);
  const to = listo.clock.now();
  const stretch = { from: to - ORDER_DAYS * DAY_MS, to };
  const before = all.filter(({ isOn }) => isOn).map(toRule);
  const after = before.map((rule) => ({ ...rule, order: places.get(rule.id) ?? rule.order }));
  const rows = await readPast({ listo, viewer }, stretch.from);
  const [more, fewer]: [Counts, Counts] = [{}, {}];
  let otherwise = 0;
  for (const [i, ticket] of (await toTickets(listo, rows)).entries()) {
    // A ticket in confidence is for the rules of its own team.
    const own = (rules: Rule[]) =>
      ticket.now.isConfidential ? rules.filter(({ teamId }) => teamId === ticket.now.teamId) : rules;
    const effect = compareOrders({ before: own(before), after: own(after), stretch }, ticket);
    otherwise += effect.otherwise;
    addAll(more, effect.more);
    addAll(fewer, effect.fewer);
    if (i % TICKETS_AT_ONCE === 0) await breathe();
  }
  const named = namedOf(all);
  return { otherwise, entries: rows.length, more: named(more), fewer: named(fewer) };
}
