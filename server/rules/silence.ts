import { effectsOn, silences, timesOf, type DueSilence, type Happening } from '../../core/rules';
import type { TimerHandler } from '../timers/runner';
import type { UnitOfWork } from '../unitOfWork';
import { fire } from './fire';
import { toRule, type RuleRow } from './model';
import { PAST_SQL, readFields, readRules, toOccurrence, type PastRow } from './read';

/** So many tickets are asked in one go by a rule that goes by time. */
const CHUNK = 100;

/** The silence that a rule waits for on a ticket, or that is due; null: none. It counts from when the rule was switched on. */
async function findSilence(
  { listo, tx }: UnitOfWork,
  rule: RuleRow,
  number: number,
): Promise<(DueSilence & { byRules: string[] }) | null> {
  const rows = await listo.db.select<PastRow>(
    `${PAST_SQL} WHERE j.ticketNumber = :number AND j.at >= :onSince ORDER BY j.id`,
    { number, onSince: rule.onSince ?? 0 },
    tx,
  );
  const history = rows.flatMap((row) => {
    const { kinds, ...rest } = toOccurrence(row);
    return kinds.map((kind): Happening => ({ ...rest, kind }));
  });
  const runs = await listo.db.tables.ruleRuns.find(
    { ruleId: rule.id, ticketNumber: number },
    { transaction: tx },
  );
  const fired = runs.map(({ ruleId, cause }) => ({ ruleId, since: cause.slice(1) }));
  const calendars = await listo.calendars.getAll();
  const [due] = silences([toRule(rule)], history, calendars, listo.clock.now(), fired);
  const byRules = history.find(({ entryId }) => entryId === due?.since)?.byRules ?? [];
  return due ? { ...due, byRules } : null;
}

/** Lets a rule wait for silence on a ticket from what has just happened; an earlier wait ends. */
export async function armSilence(work: UnitOfWork, rule: RuleRow, number: number): Promise<void> {
  const due = await findSilence(work, rule, number);
  if (!due) return;
  await work.listo.db.tables.timers.insertAll(
    [{ ticketNumber: number, kind: 'ruleSilent', ref: rule.id, at: due.dueAt }],
    work.tx,
    { updates: ['at'] },
  );
}

/** Silence that is due: if it has held, its rule is asked of the ticket as it is now. */
export const hearRuleSilence: TimerHandler = async (listo, due, tx) => {
  const rules = await readRules(listo, tx);
  for (const { ticketNumber, ref } of due) {
    const rule = rules.find(({ id, isOn }) => id === ref && isOn);
    const ticket = rule && (await listo.db.tables.tickets.findOne({ number: ticketNumber }, tx, true));
    if (!rule || !ticket || (ticket.isConfidential && rule.teamId !== ticket.teamId)) continue;
    const silence = await findSilence({ listo, tx }, rule, ticketNumber);
    if (!silence) continue;
    if (silence.dueAt > listo.clock.now()) {
      await armSilence({ listo, tx }, rule, ticketNumber);
      continue;
    }
    const fields = (await readFields(listo, [ticketNumber], tx)).get(ticketNumber)!;
    const effects = effectsOn(toRule(rule), fields);
    if (effects.length > 0)
      await fire({ listo, tx }, ticket, {
        ...{ rule, effects, cause: `s${silence.since}`, byRules: silence.byRules },
      });
  }
};

/** Sets the next instant of a rule that goes by time; it has none where its recurrence has ended. */
export async function armTime({ listo, tx }: UnitOfWork, rule: RuleRow): Promise<void> {
  const { timers } = listo.db.tables;
  const ref = `${rule.id} `;
  await listo.db.run(
    "DELETE FROM timers WHERE ticketNumber = 0 AND kind = 'ruleTime' AND SUBSTRING_INDEX(ref, ' ', 1) = :id",
    { id: rule.id },
    tx,
  );
  if (!rule.isOn || rule.definition.trigger.on !== 'time') return;
  const next = nextTime(rule, listo.clock.now());
  if (next !== null)
    await timers.insert({ ticketNumber: 0, kind: 'ruleTime', ref: `${ref}${next} 0`, at: next }, tx);
}

const DAY_MS = 86_400_000;
/** Looked for over ever longer stretches: most rules come back within a week, some once a year. */
const STRETCHES_DAYS = [8, 40, 400, 1_500];

function nextTime(rule: RuleRow, now: number): number | null {
  for (const days of STRETCHES_DAYS) {
    const [next] = timesOf(toRule(rule), now + 1, now + days * DAY_MS);
    if (next !== undefined) return next;
  }
  return null;
}

/** An instant of a rule that goes by time: each open ticket is asked, some in each go, then the next instant is set. */
export const hearRuleTime: TimerHandler = async (listo, due, tx) => {
  const rules = await readRules(listo, tx);
  for (const { ref } of due) {
    const [id, instant, after] = ref.split(' ') as [string, string, string];
    const rule = rules.find((each) => each.id === id && each.isOn);
    if (rule?.definition.trigger.on !== 'time') continue;
    const open = await listo.db.select<{ number: number }>(
      `SELECT number FROM tickets WHERE state IN ('received', 'inWork', 'held') AND number > :after
         AND ${rule.teamId === null ? 'NOT isConfidential' : 'teamId = :teamId'} ORDER BY number LIMIT :limit`,
      { after: Number(after), limit: CHUNK, teamId: rule.teamId },
      tx,
    );
    const numbers = open.map(({ number }) => number);
    const fields = await readFields(listo, numbers, tx);
    for (const number of numbers) {
      const effects = effectsOn(toRule(rule), fields.get(number)!);
      const ticket = effects.length > 0 && (await listo.db.tables.tickets.findOne({ number }, tx, true));
      if (ticket) await fire({ listo, tx }, ticket, { rule, effects, cause: `t${instant}`, byRules: [] });
    }
    if (numbers.length < CHUNK) await armTime({ listo, tx }, rule);
    else {
      const next = `${id} ${instant} ${numbers.at(-1)}`;
      await listo.db.tables.timers.insert(
        { ticketNumber: 0, kind: 'ruleTime', ref: next, at: listo.clock.now() },
        tx,
      );
    }
  }
};
