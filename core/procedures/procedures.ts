import { type TicketKind } from '../tickets';
import type { LocalText } from '../forms';

/** One thing to do: what, by whom, and how exactly (in Markdown). */
export type ProcedureStep = { id: string; name: LocalText; who: LocalText; instruction: LocalText };

/** What a procedure is for: one service, or a kind of work of its team. */
export type ProcedureFor = { serviceId: string | null; kind: TicketKind | null };

/** What a procedure is for: a service, or a kind of work of a team. */
export type ProcedurePlace = {
  /** How many of the steps that there are now are done. */
  done: number;
  /** The step that it is at: the first that is not done; null when all are. */
  at: string | null;
};

/**
 * Where a ticket is in a procedure. Ticks of steps that are no more do not count.
 * @example findPlace(['a', 'b'], ['a']) // { done: 1, at: 'b' }
 */
export function findPlace(stepIds: readonly string[], doneIds: readonly string[]): ProcedurePlace {
  const done = new Set(doneIds);
  return {
    done: stepIds.filter((id) => done.has(id)).length,
    at: stepIds.find((id) => !done.has(id)) ?? null,
  };
}

/** The procedure for a piece of work: that of its service, else that of its kind. */
export function chooseProcedure<T extends ProcedureFor>(
  ofTeam: readonly T[],
  work: { serviceId: string; kind: TicketKind },
): T | null {
  return (
    ofTeam.find(({ serviceId }) => serviceId === work.serviceId) ??
    ofTeam.find(({ serviceId, kind }) => serviceId === null && kind === work.kind) ??
    null
  );
}
