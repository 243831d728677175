import { BadEstate, type EstateProblem, type EstateProblemCode } from './errors';
import type { Network } from './network';
import type { Freeze, Work } from './types';

const MESSAGES: Record<EstateProblemCode, (id: string) => string> = {
  unknown: (id) => `There is no thing "${id}".`,
  doubled: (id) => `"${id}" is there twice.`,
  atLeast: (id) => `What "${id}" needs at least must be a whole number from 0.`,
  itself: (id) => `"${id}" cannot need itself.`,
  empty: (id) => `"${id}" must end after it begins.`,
  chance: (id) => `The chance of "${id}" must lie between 0 and 1.`,
};

/** Gathers what is wrong, each fault of a thing once, and throws all of it together. */
export class Faults {
  private readonly problems = new Map<string, EstateProblem>();

  add(code: EstateProblemCode, id: string): void {
    this.problems.set(`${code} ${id}`, { code, id, message: MESSAGES[code](id) });
  }

  /** @throws BadEstate where anything is wrong */
  throwIfAny(): void {
    if (this.problems.size > 0) throw new BadEstate([...this.problems.values()]);
  }
}

/** Says which of the ids are no things. */
export function checkKnown({ indexOf }: Network, ids: Iterable<string>, faults: Faults): void {
  for (const id of ids) if (!indexOf.has(id)) faults.add('unknown', id);
}

const isStretch = ({ from, to }: { from: number; to: number }): boolean => to > from;

/** Looks at works and freezes: their things, their stretches, works of one id. */
export function checkPlanned(
  network: Network,
  { works, freezes }: { works: Work[]; freezes: Freeze[] },
  faults: Faults,
): void {
  const seen = new Set<string>();
  for (const work of works) {
    if (seen.has(work.id)) faults.add('doubled', work.id);
    seen.add(work.id);
    if (!isStretch(work)) faults.add('empty', work.id);
    checkKnown(network, work.takesOut, faults);
  }
  for (const freeze of freezes) {
    if (!isStretch(freeze)) faults.add('empty', freeze.id);
    checkKnown(network, freeze.things ?? [], faults);
  }
}

/** Looks at the windows in which work may be done. */
export function checkWindows(windows: { from: number; to: number }[], faults: Faults): void {
  if (!windows.every(isStretch)) faults.add('empty', '');
}
