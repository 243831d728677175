import type { api } from '../../contract';
import type { AnswerOf } from '../../contract/endpoint';
import { passOnFrom } from '../approvals/gone';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { appendSetting } from '../journal/append';
import type { Listo } from '../listo';
import { recordStep } from '../plans/record';
import { giveBack } from '../routing/giveBack';
import { requireEmergency } from '../sessions/access';
import { forgetViewers } from '../sessions/viewer';
import type { TimerHandler } from '../timers/runner';
import type { PersonRow } from '../people/model';
import type { Changing, UnitOfWork } from '../unitOfWork';

type Leaving = AnswerOf<typeof api.people.leaving>;

/** What hangs on someone: what waits for them now, and where the organisation names them. */
export async function readLeaving(listo: Listo, personId: string): Promise<Leaving> {
  const { db } = listo;
  const person = await db.tables.people.findOne({ id: personId });
  const site = person && (await db.tables.sites.findOne({ id: person.siteId }));
  if (!person || !site) throw new ProblemError('notFound');
  const [waiting] = await db.select<Leaving['waiting']>(
    `SELECT (SELECT COUNT(*) FROM asks a JOIN approvals ap ON ap.id = a.approvalId AND ap.outcome = 'open'
         WHERE a.decision IS NULL AND (a.askedId = :personId OR a.voterId = :personId)) AS asks,
       (SELECT COUNT(*) FROM tickets WHERE assigneeId = :personId AND state IN ('received', 'inWork', 'held')) AS tickets,
       (SELECT COUNT(*) FROM plan_steps WHERE assigneeId = :personId AND state = 'active') AS steps,
       (SELECT COUNT(*) FROM people WHERE managerId = :personId AND leftAt IS NULL) AS reports`,
    { personId },
  );
  const services = await db.select<Leaving['services'][number]>(
    `SELECT id, title FROM services WHERE ownerId = :personId OR fallbackApproverId = :personId
       OR approvals LIKE :named OR plan LIKE :named ORDER BY id`,
    { personId, named: `%"person":"${personId}"%` },
  );
  const { id, name, goesFirst, title, leftAt, version } = person;
  return {
    ...{ id, name, goesFirst, title, site: site.name, leftAt, version },
    waiting: waiting!,
    services,
  };
}

async function findAt({ listo, tx }: UnitOfWork, id: string, version: number): Promise<PersonRow> {
  const person = await listo.db.tables.people.findOne({ id }, tx, true);
  if (!person) throw new ProblemError('notFound');
  if (person.version !== version)
    throw new ProblemError('stale', {
      differences: [{ field: 'leftAt', theirs: person.leftAt, yours: null, by: null }],
    });
  return person;
}

async function record(
  { listo, tx }: UnitOfWork,
  actorId: string,
  { type, personId }: { type: 'personLeft' | 'personBack'; personId: string },
): Promise<void> {
  await appendSetting(
    { listo, tx },
    {
      by: actorId,
      type,
      data: {
        personId,
        teamIds: (await listo.db.tables.members.find({ personId }, { transaction: tx })).map(
          ({ teamId }) => teamId,
        ),
      },
    },
  );
}

/** Someone leaves: they can no longer sign in, and what waits for them goes to others. */
export async function leave({ listo, viewer, actor }: Changing, id: string, version: number) {
  if (id === viewer.id)
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'personId', code: 'notAChoice' }] });
  const { tables } = listo.db;
  const answer = await change(listo, actor, async (tx) => {
    const person = await findAt({ listo, tx }, id, version);
    if (person.leftAt !== null) return { version };
    await requireEmergency({ listo, tx }, id);
    const now = listo.clock.now();
    await tables.people.update({ id }, { leftAt: now, presence: 'away', version: version + 1 }, tx);
    await tables.sessions.remove({ personId: id }, tx);
    await tables.timers.insert({ ticketNumber: 0, kind: 'leaves', ref: id, at: now }, tx);
    await record({ listo, tx }, viewer.id, { type: 'personLeft', personId: id });
    return { version: version + 1 };
  });
  forgetViewers(listo);
  return answer;
}

/** They are here after all, or again; what went to others stays with those. */
export async function comeBackAgain({ listo, viewer, actor }: Changing, id: string, version: number) {
  return change(listo, actor, async (tx) => {
    const person = await findAt({ listo, tx }, id, version);
    if (person.leftAt === null) return { version };
    await listo.db.tables.people.update({ id }, { leftAt: null, version: version + 1 }, tx);
    await record({ listo, tx }, viewer.id, { type: 'personBack', personId: id });
    return { version: version + 1 };
  });
}

async function giveStepsBack({ listo, tx }: UnitOfWork, personId: string): Promise<void> {
  const { tables } = listo.db;
  const steps = await tables.planSteps.find({ assigneeId: personId, state: 'active' }, { transaction: tx });
  for (const step of steps) {
    const ticket = (await tables.tickets.findOne({ number: step.ticketNumber }, tx, true))!;
    const data = { personId };
    await recordStep(
      { listo, tx },
      { ticket, step },
      { changes: { assigneeId: null }, entry: { type: 'stepLeftBehind', actorId: null, via: 'rule', data } },
    );
  }
}

/** What waited for someone who left goes to whoever comes next: decisions up the line, work back to its team. */
export const handOver: TimerHandler = async (listo, timers, tx) => {
  for (const { ref: personId } of timers) {
    const person = await listo.db.tables.people.findOne({ id: personId }, tx);
    // Back before it was done.
    if (!person || person.leftAt === null) continue;
    await passOnFrom({ listo, tx }, personId, 'askLeft');
    const held = await listo.db.select<{ number: number }>(
      "SELECT number FROM tickets WHERE assigneeId = :personId AND state IN ('received', 'inWork', 'held')",
      { personId },
      tx,
    );
    const numbers = held.map(({ number }) => number);
    await giveBack({ listo, tx }, { personId, numbers }, 'leftBehind');
    await giveStepsBack({ listo, tx }, personId);
  }
};
