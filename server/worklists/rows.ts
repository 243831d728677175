import type { ServiceStep } from '../../core/plans';
import type { TicketRow } from '../../contract/tickets';
import type { LocalText } from '../../core/forms';
import type { Clock } from '../../contract/clocks';
import { standingOf } from '../../core/targets';
import { isOpen, type ProgressLabel, type TicketState } from '../../core/tickets';
import { readClocks } from '../clocks/read';
import type { Listo } from '../listo';
import { readPeople } from '../people/names';
import { readDue } from '../tickets/dueByHand';
import type { TicketRecord } from '../tickets/model';

export type RowRecord = Pick<
  TicketRecord,
  | ('number' | 'version' | 'kind' | 'title' | 'place' | 'requesterId' | 'assigneeId' | 'teamId' | 'state')
  | ('heldFor' | 'heldUntil' | 'priority' | 'createdAt' | 'changedAt' | 'tightestDueAt')
  | ('dueAt' | 'dueDate' | 'remindAt' | 'resolvedAt' | 'closedAt' | 'via' | 'waitsSince' | 'rating')
  | 'progressFinishedAt'
> & {
  service: LocalText;
  stateWords: Partial<Record<TicketState, LocalText>>;
  team: LocalText;
  progressId: string | null;
  progressLabels: ProgressLabel[];
  isDeclined: number;
  takenUp: number;
  promisedAt: number | null;
  site: string;
  groupName: string | null;
};

/** The columns of a list, from `tickets t` joined with its service and team. */
export const ROW_SELECT = `SELECT t.number, t.version, t.kind, t.title, t.place, t.requesterId, t.assigneeId, t.teamId, t.state,
  t.heldFor, t.heldUntil, t.isDeclined, t.takenUp, t.priority, t.createdAt, t.changedAt, t.tightestDueAt,
  t.dueAt, t.dueDate, t.remindAt, t.resolvedAt, t.closedAt, t.via, t.waitsSince, t.rating, s.title AS service, s.stateWords, tm.name AS team,
  t.progressId, t.progressFinishedAt, tm.progressLabels, pl.promisedAt, rs.name AS site, tg.name AS groupName`;
export const ROW_JOINS = `JOIN services s ON s.id = t.serviceId JOIN teams tm ON tm.id = t.teamId LEFT JOIN plans pl ON pl.ticketNumber = t.number
   LEFT JOIN people rq ON rq.id = t.requesterId LEFT JOIN sites rs ON rs.id = rq.siteId LEFT JOIN team_groups tg ON tg.id = t.groupId`;

async function readApprovers(listo: Listo, numbers: number[]): Promise<Map<number, string[]>> {
  const names = new Map<number, string[]>();
  if (numbers.length === 0) return names;
  const rows = await listo.db.select<{ ticketNumber: number; name: string }>(
    `SELECT a.ticketNumber, p.name FROM asks a JOIN approvals ap ON ap.id = a.approvalId AND ap.outcome = 'open'
     JOIN people p ON p.id = a.askedId WHERE a.ticketNumber IN (:numbers) AND a.decision IS NULL ORDER BY a.askedAt, a.id`,
    { numbers },
  );
  for (const { ticketNumber, name } of rows)
    names.set(ticketNumber, [...(names.get(ticketNumber) ?? []), name]);
  return names;
}

/** How finished work stands to its promises. */
function judgeWork(state: TicketState, clocks: Clock[], now: number): 'inTime' | 'late' | null {
  if (isOpen(state) || clocks.length === 0) return null;
  return clocks.some((clock) => standingOf(clock, now) === 'missed') ? 'late' : 'inTime';
}

/** What a row that is a step of a plan carries beside. */
export type StepOfRow = {
  stepId: string;
  definition: Pick<ServiceStep, 'name' | 'kind'>;
  neededBy: number;
};

function toStep({ stepId, definition, neededBy }: StepOfRow): TicketRow['step'] {
  const kind = definition.kind === 'approval' ? 'approval' : 'task';
  return { id: stepId, kind, name: definition.name, neededBy };
}

/** Fills a page of a list with names and clocks. */
export async function completeRows(
  listo: Listo,
  records: (RowRecord & Partial<StepOfRow>)[],
): Promise<TicketRow[]> {
  const numbers = records.map(({ number }) => number);
  const awaiting = records.filter(({ heldFor }) => heldFor === 'approval').map(({ number }) => number);
  const [people, clocks, approvers] = await Promise.all([
    readPeople(
      listo,
      records.flatMap(({ requesterId, assigneeId }) => [requesterId, assigneeId]),
    ),
    readClocks(listo, numbers),
    readApprovers(listo, awaiting),
  ]);
  const now = listo.clock.now();
  return records.map(
    ({
      requesterId,
      assigneeId,
      teamId,
      team,
      isDeclined,
      takenUp,
      stateWords,
      progressId,
      progressLabels,
      stepId,
      definition,
      neededBy,
      ...record
    }) => {
      const {
        tightestDueAt: _,
        dueAt: __,
        dueDate: ___,
        remindAt: ____,
        progressFinishedAt: _____,
        ...row
      } = record;
      return {
        ...row,
        due: readDue(record, now),
        isDeclined: Boolean(isDeclined),
        isTakenUp: Boolean(takenUp),
        ownWords: stateWords[record.state] ?? null,
        progress: progressLabels.find(({ id }) => id === progressId) ?? null,
        requester: people.get(requesterId)!,
        assignee: assigneeId === null ? null : (people.get(assigneeId) ?? null),
        team: { id: teamId, name: team },
        approvers: approvers.get(row.number) ?? [],
        standing: judgeWork(record.state, clocks.get(row.number)!, now),
        clocks: stepId === undefined ? clocks.get(row.number)! : [],
        step: stepId === undefined ? null : toStep({ stepId, definition: definition!, neededBy: neededBy! }),
      };
    },
  );
}
