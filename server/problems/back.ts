import { backAt } from '../../core/problems';
import { largestAlike } from '../../core/surge';
import { isNews } from '../../core/telling';
import type { Consumer } from '../journal/consumer';
import type { JournalRow } from '../journal/model';
import type { TicketRecord } from '../tickets/model';
import { recordChange } from '../tickets/record';
import type { UnitOfWork } from '../unitOfWork';
import type { ProblemRow } from './model';

/** A problem that was solved so long ago is another one when it comes again (ms): a year. */
const REMEMBERED_MS = 365 * 86_400_000;

const isNewIncident = ({ type, changes }: JournalRow): boolean =>
  type === 'sent' && changes.kind?.to === 'incident';

type Solved = ProblemRow & { teamId: string; isConfidential: number };

/** Whether an incident is like those behind a solved problem: about the same thing, or of one service with like words. */
async function isLike({ listo, tx }: UnitOfWork, incident: TicketRecord, problem: Solved): Promise<boolean> {
  // What is in confidence stays with its team.
  if (incident.isConfidential && incident.teamId !== problem.teamId) return false;
  const [shared] = await listo.db.select<{ found: number }>(
    `SELECT 1 AS found FROM ticket_things a JOIN ticket_things b ON b.thingId = a.thingId
     WHERE a.ticketNumber = :number AND (b.ticketNumber = :problem) LIMIT 1`,
    { number: incident.number, problem: problem.ticketNumber },
    tx,
  );
  if (shared) return true;
  const ones = await listo.db.select<{ title: string }>(
    `SELECT t.title FROM problem_incidents n JOIN tickets t ON t.number = n.incidentNumber
     WHERE n.problemNumber = :problem AND n.tie <> 'dropped' AND t.serviceId = :serviceId LIMIT 50`,
    { problem: problem.ticketNumber, serviceId: incident.serviceId },
    tx,
  );
  return ones.some((one) => largestAlike([one, incident]).length === 2);
}

/** Opens a problem again whose incidents are back. */
async function reopen(
  { listo, tx }: UnitOfWork,
  problem: Solved,
  { at, count }: { at: number; count: number },
): Promise<void> {
  const { tables } = listo.db;
  const ticket = await tables.tickets.findOne({ number: problem.ticketNumber }, tx, true);
  if (!ticket || ticket.state === 'withdrawn') return;
  const again = { stage: 'lookedInto', solvedAt: null, backAt: at, version: problem.version + 1 } as const;
  await tables.problems.update({ ticketNumber: problem.ticketNumber }, again, tx);
  await recordChange({ listo, tx }, ticket, {
    changes: { state: 'received', resolvedAt: null, closedAt: null, heldFor: null },
    entry: { type: 'problemBack', actorId: null, via: 'rule', audience: 'team', data: { count } },
  });
}

/** New incidents like those of a solved problem are put with it; once there are enough of them, it is back. */
export const problemsConsumer: Consumer = {
  name: 'problems',
  hears: (entry) => entry.ticketNumber !== null && isNewIncident(entry),
  async handle(listo, entries, tx) {
    const now = listo.clock.now();
    const solved = await listo.db.select<Solved>(
      `SELECT b.*, t.teamId, t.isConfidential FROM problems b JOIN tickets t ON t.number = b.ticketNumber
       WHERE b.stage = 'solved' AND b.solvedAt > :since`,
      { since: now - REMEMBERED_MS },
      tx,
    );
    if (solved.length === 0) return;
    const { tickets, problemIncidents } = listo.db.tables;
    const numbers = entries.filter(isNewIncident).map(({ ticketNumber }) => ticketNumber!);
    for (const incident of await tickets.find({ number: numbers }, { transaction: tx }))
      for (const problem of solved) {
        if (!isNews(incident) || !(await isLike({ listo, tx }, incident, problem))) continue;
        const key = { problemNumber: problem.ticketNumber, incidentNumber: incident.number };
        if (await problemIncidents.findOne(key, tx)) continue;
        await problemIncidents.insert({ ...key, tie: 'suspected', reason: '', at: now }, tx);
        const rows = await listo.db.select<{ createdAt: number }>(
          `SELECT t.createdAt FROM problem_incidents n JOIN tickets t ON t.number = n.incidentNumber
           WHERE n.problemNumber = :number AND n.tie <> 'dropped'`,
          { number: problem.ticketNumber },
          tx,
        );
        const instants = rows.map(({ createdAt }) => createdAt);
        const at = backAt(problem.solvedAt!, instants);
        if (at === null) continue;
        const count = instants.filter((instant) => instant > problem.solvedAt!).length;
        await reopen({ listo, tx }, problem, { at, count });
        solved.splice(solved.indexOf(problem), 1);
        break;
      }
  },
};
