import type { LocalText } from '../forms';
import type { Reader } from '../telling';

/**
 * What a target does when a share of its limit is used: whom it tells, in which words, and whether the ticket goes
 * to someone else or becomes more urgent. 100 is the breach.
 */
export type TargetNotice = {
  percent: number;
  /** Empty: nobody is told. */
  tell: Reader[];
  /** With the blanks {number}, {title}, {target} and {percent}; null: Listo's own words. */
  words: LocalText | null;
  handTo: { teamId: string; groupId: string | null; personId: string | null } | null;
  raisesPriority: boolean;
};

/** The share of its limit, in percent, at which a clock is past due. */
export const BREACH_PERCENT = 100;

/** The shares at which a target says something before its breach. */
export function listWarnPercents(notices: TargetNotice[]): number[] {
  return notices.map(({ percent }) => percent).filter((percent) => percent !== BREACH_PERCENT);
}

/** The notice that is given at a share, where there is one. */
export function findNotice(notices: TargetNotice[], percent: number): TargetNotice | null {
  return notices.find((notice) => notice.percent === percent) ?? null;
}
