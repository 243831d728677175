import type { Fields } from '../../core/conditions';
import { fits, rulesForEntry, type Occurrence } from '../../core/rules';
import { isNews } from '../../core/telling';
import type { Consumer } from '../journal/consumer';
import type { JournalRow } from '../journal/model';
import type { Listo } from '../listo';
import type { Door } from '../../core/tickets';
import type { UnitOfWork } from '../unitOfWork';
import { fire } from './fire';
import { toRule, type RuleRow } from './model';
import { PAST_SQL, readFields, readRules, toOccurrence, type PastRow } from './read';
import { armSilence } from './silence';

/** Entries that say themselves what a rule did: rules do not hear of them. */
const OWN = new Set<string>(['ruleSaid', 'ruleNoted', 'ruleTold', 'ruleFailed']);

const hearsOf = ({ definition: { trigger } }: RuleRow, occurrence: Occurrence): boolean =>
  occurrence.kinds.some((kind) => fits(trigger, { ...occurrence, kind }));
const waitsFor = ({ definition: { trigger } }: RuleRow, { kinds }: Occurrence): boolean =>
  trigger.on === 'silence' && kinds.some((kind) => kind === trigger.since);

/**
 * The chain that an entry belongs to. What came about by itself upon something, such as who was given a ticket that a rule
 * gave on, belongs to the chain of what came before it on its ticket.
 */
async function chainOf({ listo, tx }: UnitOfWork, entry: JournalRow, own: string[]): Promise<string[]> {
  if (own.length > 0 || entry.actorId !== null) return own;
  const [before] = await listo.db.select<{ byRules: string | string[] | null }>(
    `SELECT byRules FROM journal WHERE ticketNumber = :number AND id < :id AND (actorId IS NOT NULL OR byRules IS NOT NULL)
     ORDER BY id DESC LIMIT 1`,
    { number: entry.ticketNumber, id: entry.id },
    tx,
  );
  const chain = before?.byRules ?? [];
  return typeof chain === 'string' ? (JSON.parse(chain) as string[]) : chain;
}

/** What a ticket in confidence is for: its own team's rules alone. */
const mayAsk = ({ teamId }: RuleRow, ticket: Fields): boolean =>
  ticket.isConfidential !== true || teamId === ticket.teamId;

/** What is new, with the rules that are on and the facts of its tickets, which are renewed as rules change them. */
type Round = { rules: RuleRow[]; fields: Map<number, Fields> };

/**
 * Asks the rules about one entry, and lets those that fire do what they say. Most fire nowhere: that is seen from the
 * facts as they were read for all, and only a ticket on which one fires is locked, read anew and asked about again.
 */
async function askAbout(
  work: UnitOfWork,
  entry: JournalRow,
  { round, heard }: { round: Round; heard: Occurrence },
) {
  const { listo, tx } = work;
  const number = entry.ticketNumber!;
  const firing = (fields: Fields, occurrence: Occurrence) => {
    const asked = round.rules.filter((rule) => hearsOf(rule, occurrence) && mayAsk(rule, fields));
    return rulesForEntry(asked.map(toRule), occurrence, fields);
  };
  const before = round.fields.get(number);
  if (!before || firing(before, heard).length === 0) return;
  const ticket = await listo.db.tables.tickets.findOne({ number }, tx, true);
  const fields = (await readFields(listo, [number], tx)).get(number);
  if (!ticket || !fields) return;
  const occurrence = { ...heard, byRules: await chainOf(work, entry, heard.byRules) };
  for (const { ruleId, effects } of firing(fields, occurrence)) {
    const rule = round.rules.find(({ id }) => id === ruleId)!;
    await fire(work, ticket, { rule, effects, cause: `e${entry.id}`, byRules: occurrence.byRules });
  }
  for (const [name, renewed] of await readFields(listo, [number], tx)) round.fields.set(name, renewed);
}

/** What some of the rules that are on hear of, with the entry as they hear it. */
async function listHeard(work: UnitOfWork, entries: JournalRow[], rules: RuleRow[]) {
  const past = await work.listo.db.select<PastRow>(
    `${PAST_SQL} WHERE j.id IN (:ids)`,
    { ids: entries.map(({ id }) => id) },
    work.tx,
  );
  const byId = new Map(past.map((row) => [row.id, toOccurrence(row)]));
  return entries.flatMap((entry) => {
    const heard = byId.get(entry.id);
    const isHeard = heard && rules.some((rule) => hearsOf(rule, heard) || waitsFor(rule, heard));
    return isHeard ? [{ entry, heard }] : [];
  });
}

/** Rules: what a team wants done by itself as soon as something happens. */
export const rulesConsumer: Consumer = {
  name: 'rules',
  hears: ({ ticketNumber, type }) => ticketNumber !== null && !OWN.has(type),
  async handle(listo: Listo, entries, tx) {
    const rules = (await readRules(listo, tx)).filter(({ isOn }) => isOn);
    if (rules.length === 0) return;
    const work = { listo, tx };
    const all = await listHeard(work, entries, rules);
    if (all.length === 0) return;
    const numbers = [...new Set(all.map(({ entry }) => entry.ticketNumber!))];
    const round: Round = { rules, fields: await readFields(listo, numbers, tx) };
    for (const { entry, heard } of all) {
      const via = round.fields.get(entry.ticketNumber!)?.via as Door | undefined;
      // What is brought over from a table is known already: no rule fires of it.
      if (via === undefined || (entry.type === 'sent' && !isNews({ via }))) continue;
      // One that has just been switched off by its failures is asked no more.
      round.rules = rules.filter(({ isOn }) => isOn);
      await askAbout(work, entry, { round, heard });
      for (const rule of round.rules)
        if (waitsFor(rule, heard)) await armSilence(work, rule, entry.ticketNumber!);
    }
  },
};
