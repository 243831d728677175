import { completeText, type LocalText } from '../forms';
import type { Outage } from '../estate';

/** What a notice is about: something that does not work now, or work that will come. */
export const NOTICE_KINDS = ['outage', 'planned'] as const;
/** What a notice is about. */
export type NoticeKind = (typeof NOTICE_KINDS)[number];

/** Where a notice stands: still to come, going on, over, or taken back before anybody was written to. */
export const NOTICE_STATES = ['coming', 'on', 'ended', 'calledBack'] as const;
/** Where a notice stands. */
export type NoticeState = (typeof NOTICE_STATES)[number];

/** The stretch of a notice. Instants in ms since 1970; `untilAt`: when it is thought to end. */
export type NoticeTimes = {
  kind: NoticeKind;
  fromAt: number;
  untilAt: number | null;
  endedAt: number | null;
  calledBackAt: number | null;
};

/** For so long a notice can be called back: nobody is written to before (ms). */
export const CALL_BACK_MS = 60_000;
/** For so long a notice that is over still stands on pages that everyone reads (ms). */
export const STILL_SHOWN_MS = 3 * 3_600_000;
/** Words of a notice are read in a moment, or not at all. */
export const NOTICE_LIMITS = { title: 140, words: 4_000, forAgents: 4_000, review: 20_000 } as const;

/** When a notice was over by `now`; null: it is not. Planned work is over when it was to be; an outage when somebody says so. */
export function overAt({ kind, untilAt, endedAt }: NoticeTimes, now: number): number | null {
  if (endedAt !== null) return endedAt;
  return kind === 'planned' && untilAt !== null && untilAt <= now ? untilAt : null;
}

/**
 * Where a notice stands at an instant.
 * @example noticeState({ kind: 'outage', fromAt: nine, untilAt: ten, endedAt: null, calledBackAt: null }, eleven) // 'on'
 */
export function noticeState(notice: NoticeTimes, now: number): NoticeState {
  if (notice.calledBackAt !== null) return 'calledBack';
  if (overAt(notice, now) !== null) return 'ended';
  return notice.fromAt > now ? 'coming' : 'on';
}

/** Whether it goes on for longer than was said. */
export function isLongerThanSaid(notice: NoticeTimes, now: number): boolean {
  return noticeState(notice, now) === 'on' && notice.untilAt !== null && notice.untilAt < now;
}

/** Whether it stands on the pages of those it concerns: until some time after it is over. */
export function isShownNow(notice: NoticeTimes, now: number): boolean {
  if (notice.calledBackAt !== null) return false;
  const over = overAt(notice, now);
  return over === null || over + STILL_SHOWN_MS > now;
}

/** Whether it can still be called back. */
export function mayCallBack(
  { createdAt, calledBackAt }: { createdAt: number; calledBackAt: number | null },
  now: number,
): boolean {
  return calledBackAt === null && now < createdAt + CALL_BACK_MS;
}

/** What is wrong with a notice as it is written: the field, and the code of what is wrong with it. */
export type NoticeProblem = {
  field: string;
  code: 'missing' | 'endsBeforeBegins' | 'isOver' | 'confidential';
};

type Said = Pick<NoticeTimes, 'kind' | 'fromAt' | 'untilAt'> & { title: LocalText; words: LocalText };

/** What is wrong with a notice as it is written. @param now ms since 1970 */
export function checkNotice({ kind, title, fromAt, untilAt }: Said, now: number): NoticeProblem[] {
  const problems: NoticeProblem[] = [];
  if (completeText(title).en.trim() === '') problems.push({ field: 'title', code: 'missing' });
  if (untilAt !== null && untilAt <= fromAt) problems.push({ field: 'untilAt', code: 'endsBeforeBegins' });
  // What is planned has an end that is known, and has not gone by.
  else if (kind === 'planned' && untilAt === null) problems.push({ field: 'untilAt', code: 'missing' });
  else if (kind === 'planned' && untilAt! <= now) problems.push({ field: 'untilAt', code: 'isOver' });
  return problems;
}

/** The stretches in which something did not work, by its notices: outages that have begun and were not called back. */
export function toOutages(notices: readonly NoticeTimes[], now: number): Outage[] {
  return notices
    .filter(({ kind, calledBackAt, fromAt }) => kind === 'outage' && calledBackAt === null && fromAt < now)
    .map(({ fromAt, endedAt }) => ({ from: fromAt, to: endedAt }));
}
