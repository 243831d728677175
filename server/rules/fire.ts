import type { Effect } from '../../core/rules';
import { isDeadlock } from '../database/failures';
import { ProblemError } from '../http/problems';
import { append, appendSetting } from '../journal/append';
import { inChain } from '../journal/chain';
import type { TicketRecord } from '../tickets/model';
import type { UnitOfWork } from '../unitOfWork';
import { doEffect, type Acting } from './act';
import type { Did, RuleRow } from './model';

/** After so many failures in a row a rule is switched off. */
export const MOST_FAILURES = 20;
/** What its owner is told then. */
const STOPPED = {
  en: 'I was switched off: what I say could not be done twenty times in a row.',
  pt: 'Fui desligada: o que digo não pôde ser feito vinte vezes seguidas.',
};

/** Does one thing, or leaves everything as it was before it. @returns why it could not be done; null: it is done */
async function attempt(work: UnitOfWork, acting: Acting, effect: Effect): Promise<string | null> {
  const { db } = work.listo;
  await db.run('SAVEPOINT effect', {}, work.tx);
  const before = { ...acting.ticket };
  try {
    await doEffect(work, acting, effect);
    await db.run('RELEASE SAVEPOINT effect', {}, work.tx);
    return null;
  } catch (error) {
    // What the database takes back as a whole is begun anew as a whole.
    if (isDeadlock(error)) throw error;
    await db.run('ROLLBACK TO SAVEPOINT effect', {}, work.tx);
    Object.assign(acting.ticket, before);
    if (error instanceof ProblemError) return error.problem;
    work.listo.log.error({ err: error, ruleId: acting.rule.id }, 'a rule failed');
    return 'unexpected';
  }
}

/** Keeps how a rule fares: one that fails again and again is switched off, and its owner is told. */
async function keepFailures(
  { listo, tx }: UnitOfWork,
  { rule, ticketNumber }: { rule: RuleRow; ticketNumber: number },
  problem: string | null,
): Promise<void> {
  const { tables } = listo.db;
  if (problem === null) {
    if (rule.failures > 0) await tables.rules.update({ id: rule.id }, { failures: 0 }, tx);
    rule.failures = 0;
    return;
  }
  const row = await tables.rules.findOne({ id: rule.id }, tx, true);
  if (!row) return;
  const failures = row.failures + 1;
  const isStopped = row.isOn && failures >= MOST_FAILURES;
  const failed = { failures, failedAt: listo.clock.now(), failedWith: problem };
  await tables.rules.update(
    { id: rule.id },
    { ...failed, ...(isStopped && { isOn: false, onSince: null, version: row.version + 1 }) },
    tx,
  );
  Object.assign(rule, failed, isStopped && { isOn: false });
  if (!isStopped) return;
  await append(
    { listo, tx },
    {
      ...{ actorId: null, via: 'rule', type: 'ruleTold', ticketNumber, audience: 'team' },
      data: {
        ruleId: rule.id,
        rule: rule.name,
        words: STOPPED,
        tell: ['mentioned'],
        personIds: [rule.ownerId],
      },
    },
  );
  await appendSetting(
    { listo, tx },
    {
      ...{ by: null, type: 'ruleStopped' },
      data: { ruleId: rule.id, name: rule.name.en, personIds: [rule.ownerId] },
    },
  );
}

/** A rule that fires on a ticket: with what, and by what it was set off. */
export type Firing = { rule: RuleRow; effects: Effect[]; cause: string; byRules: string[] };

/**
 * Lets a rule do what it says on a locked ticket, once for what set it off. What it does is journaled as the rule's; what
 * cannot be done is said on the ticket, and the rest is done all the same.
 * @returns whether it had not fired for that before
 */
export async function fire(
  work: UnitOfWork,
  ticket: TicketRecord,
  { rule, effects, cause, byRules }: Firing,
): Promise<boolean> {
  const { listo, tx } = work;
  const key = { ruleId: rule.id, ticketNumber: ticket.number, cause };
  if (await listo.db.tables.ruleRuns.findOne(key, tx)) return false;
  const did: Did[] = [];
  await inChain(tx, [...byRules, rule.id], async () => {
    for (const [i, effect] of effects.entries()) {
      const acting = { rule, ticket, key: `${rule.id}-${ticket.number}-${cause}-${i}` };
      const problem = await attempt(work, acting, effect);
      did.push({ do: effect.do, problem });
      if (problem !== null)
        await append(work, {
          ...{
            actorId: null,
            via: 'rule',
            type: 'ruleFailed',
            ticketNumber: ticket.number,
            audience: 'team',
          },
          data: { ruleId: rule.id, rule: rule.name, effect: effect.do, code: problem },
        });
    }
  });
  await listo.db.tables.ruleRuns.insert({ ...key, at: listo.clock.now(), version: rule.version, did }, tx);
  await keepFailures(
    work,
    { rule, ticketNumber: ticket.number },
    did.find(({ problem }) => problem !== null)?.problem ?? null,
  );
  return true;
}
