import { listAnswered } from '../tickets/answered';
import type { Ask } from '../../contract/approvals';
import type { Ticket } from '../../contract/tickets';
import type { Answers, FormDefinition, LocalText } from '../../core/forms';
import type { Definition } from '../catalogue/model';
import type { Listo } from '../listo';
import { readPeople } from '../people/names';

/** The approvals of a ticket with who was asked and what they said. */
export async function readApprovals(listo: Listo, number: number): Promise<Ticket['approvals']> {
  const { tables } = listo.db;
  const approvals = await tables.approvals.find({ ticketNumber: number }, { order: ['startedAt'] });
  if (approvals.length === 0) return [];
  const asks = await tables.asks.find({ ticketNumber: number }, { order: ['askedAt', 'id'] });
  const people = await readPeople(
    listo,
    asks.flatMap(({ voterId, askedId }) => [voterId, askedId]),
  );
  return approvals.map(({ id, name, outcome }) => ({
    id,
    name,
    outcome,
    asks: asks
      .filter(({ approvalId }) => approvalId === id)
      .map(({ id: askId, voterId, askedId, reason, decision, decidedAt, words }) => ({
        id: askId,
        voter: people.get(voterId)!,
        asked: people.get(askedId)!,
        reason,
        decision,
        decidedAt,
        words,
      })),
  }));
}

type AskRecord = Omit<Ask, 'requester' | 'voter' | 'answers' | 'cost' | 'changed'> & {
  requesterId: string;
  voterId: string;
  given: Answers;
  changed: string | LocalText[] | null;
  /** The service as it was when it was sent, where that has been replaced. */
  former: Definition | null;
  formNow: FormDefinition;
  costNow: number | null;
};

/** What waits for someone's decision, the longest first, with the facts to decide by. */
export async function readAsks(listo: Listo, personId: string): Promise<Ask[]> {
  const rows = await listo.db.select<AskRecord>(
    `SELECT a.id, a.ticketNumber AS number, t.title, s.title AS service, t.requesterId, a.voterId, a.reason, v.definition AS former, s.cost AS costNow,
       a.askedAt AS since, a.questionAt,
       (SELECT JSON_QUERY(j.data, '$.fields') FROM journal j WHERE j.ticketNumber = a.ticketNumber AND j.type = 'answersChanged'
         AND j.at <= a.askedAt ORDER BY j.id DESC LIMIT 1) AS changed, t.answers AS given, s.form AS formNow,
       (SELECT MIN(c.dueAt) FROM clocks c WHERE c.ticketNumber = a.ticketNumber AND c.work = CONCAT('approval:', a.approvalId)
         AND c.state = 'running') AS dueAt
     FROM asks a JOIN approvals ap ON ap.id = a.approvalId AND ap.outcome = 'open'
     JOIN tickets t ON t.number = a.ticketNumber JOIN services s ON s.id = t.serviceId
     LEFT JOIN service_versions v ON v.serviceId = t.serviceId AND v.version = t.serviceVersion
     WHERE a.askedId = :personId AND a.decision IS NULL ORDER BY a.askedAt`,
    { personId },
  );
  const people = await readPeople(
    listo,
    rows.flatMap(({ requesterId, voterId }) => [requesterId, voterId]),
  );
  return rows.map(({ requesterId, voterId, given, former, formNow, costNow, changed, ...row }) => ({
    ...row,
    changed: typeof changed === 'string' ? (JSON.parse(changed) as LocalText[]) : (changed ?? []),
    cost: former ? former.cost : costNow,
    requester: people.get(requesterId)!,
    voter: people.get(voterId)!,
    answers: listAnswered(former?.form ?? formNow, given),
  }));
}
