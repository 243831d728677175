import { likelihoodOf } from '../estate';
import type { TicketState } from '../tickets';

/** How a change is agreed: beforehand for all of its kind, one by one, or afterwards because it cannot wait. */
export const WORK_SORTS = ['standard', 'normal', 'emergency'] as const;
/** How a change is agreed. */
export type WorkSort = (typeof WORK_SORTS)[number];

/** How a change ended. */
export const WORK_OUTCOMES = ['done', 'failed', 'takenBack'] as const;
/** How a change ended. */
export type WorkOutcome = (typeof WORK_OUTCOMES)[number];

/** Where a change stands. */
export const WORK_STAGES = [
  'draft',
  'asked',
  'declined',
  'planned',
  'goingOn',
  ...WORK_OUTCOMES,
  'withdrawn',
] as const;
/** Where a change stands. */
export type WorkStage = (typeof WORK_STAGES)[number];

/** What is done with a change. */
export const WORK_ACTS = ['change', 'submit', 'start', 'end', 'review', 'withdraw'] as const;
/** Something that is done with a change. */
export type WorkAct = (typeof WORK_ACTS)[number];

/** The longest words of a change. */
export const WORK_LIMITS = { why: 4_000, test: 4_000, takeBack: 4_000, review: 20_000, reason: 500 } as const;

/** What the stage of a change rests on, beside its ticket. Instants in ms since 1970. */
export type WorkFacts = { submittedAt: number | null; startedAt: number | null; outcome: WorkOutcome | null };
/** Its ticket, as far as the stage goes by it. */
export type OfTicket = { state: TicketState; heldFor: string | null; isDeclined: boolean };

/**
 * Where a change stands, from what was noted of it and from its ticket, which approvals move.
 * @example stageOf({ submittedAt: noon, startedAt: null, outcome: null }, { state: 'held', heldFor: 'approval', isDeclined: false }) // 'asked'
 */
export function stageOf({ submittedAt, startedAt, outcome }: WorkFacts, ticket: OfTicket): WorkStage {
  if (outcome !== null) return outcome;
  if (ticket.isDeclined) return 'declined';
  if (ticket.state === 'withdrawn') return 'withdrawn';
  if (startedAt !== null) return 'goingOn';
  if (submittedAt === null) return 'draft';
  return ticket.state === 'held' && ticket.heldFor === 'approval' ? 'asked' : 'planned';
}

const ACTS: Record<WorkStage, readonly WorkAct[]> = {
  draft: ['change', 'submit', 'withdraw'],
  asked: ['change', 'withdraw'],
  declined: [],
  planned: ['change', 'start', 'withdraw'],
  goingOn: ['end'],
  done: ['review'],
  failed: ['review'],
  takenBack: ['review'],
  withdrawn: [],
};

/** What can be done with a change where it stands. An emergency begins without waiting for what is asked. */
export function actsOf(stage: WorkStage, sort: WorkSort): readonly WorkAct[] {
  return stage === 'asked' && sort === 'emergency' ? [...ACTS.asked, 'start'] : ACTS[stage];
}

/** Whether a change has to be looked at once more afterwards: an emergency always (common practice), and what went wrong. */
export function needsReview(sort: WorkSort, outcome: WorkOutcome | null): boolean {
  return outcome !== null && (sort === 'emergency' || outcome !== 'done');
}

/** What is wrong with a change as it is written: the field, and the code of what is wrong with it. */
export type WorkProblem = { field: string; code: 'missing' | 'endsBeforeBegins' | 'isOver' | 'inGap' };

/** A change as it is written. */
export type SaidWork = {
  sort: WorkSort;
  fromAt: number | null;
  toAt: number | null;
  why: string;
  test: string;
  takeBack: string;
  thingIds: readonly string[];
};

/** What is wrong with the window of a change at any time. */
export function checkWindow({ fromAt, toAt }: Pick<SaidWork, 'fromAt' | 'toAt'>): WorkProblem[] {
  return fromAt !== null && toAt !== null && toAt <= fromAt
    ? [{ field: 'toAt', code: 'endsBeforeBegins' }]
    : [];
}

/** What is missing before a change can be submitted: everything that those who agree to it need. @param now ms since 1970 */
export function checkSubmitted(work: SaidWork, now: number): WorkProblem[] {
  const missing = (['why', 'test', 'takeBack'] as const).filter((field) => work[field].trim() === '');
  return [
    ...(work.fromAt === null ? [{ field: 'fromAt', code: 'missing' as const }] : []),
    ...(work.toAt === null ? [{ field: 'toAt', code: 'missing' as const }] : []),
    ...checkWindow(work),
    // What is mended at once may have begun already.
    ...(work.sort !== 'emergency' && work.fromAt !== null && work.fromAt < now
      ? [{ field: 'fromAt', code: 'isOver' as const }]
      : []),
    ...(work.thingIds.length === 0 ? [{ field: 'things', code: 'missing' as const }] : []),
    ...missing.map((field) => ({ field, code: 'missing' as const })),
  ];
}

/**
 * What is advised for a template from how its changes went, the oldest first: to agree to it beforehand, or no longer.
 * It has gone well often enough where `likelihoodOf` calls failing low: 35 in a row without a fault. One that is
 * agreed beforehand loses that with the first that goes wrong.
 */
export function adviseTemplate(
  outcomes: readonly WorkOutcome[],
  isStandard: boolean,
): 'propose' | 'lose' | null {
  const failed = outcomes.filter((outcome) => outcome !== 'done').length;
  if (isStandard) return outcomes.length > 0 && outcomes.at(-1) !== 'done' ? 'lose' : null;
  return likelihoodOf({ failed, all: outcomes.length }) === 'low' && outcomes.at(-1) === 'done'
    ? 'propose'
    : null;
}

/** An incident that comes so soon after a change may be its doing (ms). */
export const BESIDE_MS = 48 * 3_600_000;

/** Whether something reported at an instant may come of a change. Instants in ms since 1970. */
export function isBeside(
  { startedAt, endedAt }: { startedAt: number; endedAt: number | null },
  at: number,
): boolean {
  return startedAt <= at && (endedAt === null || at < endedAt + BESIDE_MS);
}
