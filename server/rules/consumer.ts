import { fits, rulesForEntry, type Occurrence } from '../../core/rules';
import { isNews } from '../../core/telling';
import type { Consumer } from '../journal/consumer';
import type { JournalRow } from '../journal/model';
import type { Listo } from '../listo';
import type { TicketRecord } from '../tickets/model';
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
const mayAsk = ({ teamId }: RuleRow, ticket: TicketRecord): boolean =>
  !ticket.isConfidential || teamId === ticket.teamId;

/** Asks the rules about one entry, and lets those that fire do what they say. */
async function askAbout(
  work: UnitOfWork,
  entry: JournalRow,
  rows: { rules: RuleRow[]; past: PastRow },
): Promise<void> {
  const { listo, tx } = work;
  const heard = toOccurrence(rows.past);
  const asked = rows.rules.filter((rule) => hearsOf(rule, heard));
  const waiting = rows.rules.filter((rule) => waitsFor(rule, heard));
  if (asked.length + waiting.length === 0) return;
  const ticket = await listo.db.tables.tickets.findOne({ number: entry.ticketNumber! }, tx, true);
  // What is brought over from a table is known already: no rule fires of it.
  if (!ticket || (entry.type === 'sent' && !isNews(ticket))) return;
  const occurrence = { ...heard, byRules: await chainOf(work, entry, heard.byRules) };
  const own = asked.filter((rule) => mayAsk(rule, ticket));
  const fields = own.length > 0 ? (await readFields(listo, [ticket.number], tx)).get(ticket.number)! : {};
  for (const { ruleId, effects } of rulesForEntry(own.map(toRule), occurrence, fields)) {
    const rule = own.find(({ id }) => id === ruleId)!;
    await fire(work, ticket, { rule, effects, cause: `e${entry.id}`, byRules: occurrence.byRules });
  }
  for (const rule of waiting) await armSilence(work, rule, ticket.number);
}

/** Rules: what a team wants done by itself as soon as something happens. */
export const rulesConsumer: Consumer = {
  name: 'rules',
  hears: ({ ticketNumber, type }) => ticketNumber !== null && !OWN.has(type),
  async handle(listo: Listo, entries, tx) {
    const rules = (await readRules(listo, tx)).filter(({ isOn }) => isOn);
    if (rules.length === 0) return;
    const past = await listo.db.select<PastRow>(
      `${PAST_SQL} WHERE j.id IN (:ids)`,
      { ids: entries.map(({ id }) => id) },
      tx,
    );
    const byId = new Map(past.map((row) => [row.id, row]));
    for (const entry of entries) {
      const row = byId.get(entry.id);
      // One that has just been switched off by its failures is asked no more.
      if (row) await askAbout({ listo, tx }, entry, { rules: rules.filter(({ isOn }) => isOn), past: row });
    }
  },
};
