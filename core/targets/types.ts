import type { CompiledCalendar } from '../calendar';
import type { Condition, Fields } from '../conditions';

/** A promise with its rules. Durations are ISO 8601, read with the calendar's hours per day. */
export type TargetDefinition = {
  id: string;
  name: string;
  kind: 'serviceLevel' | 'operationalLevel' | 'supplierContract';
  startWhen: Condition;
  /** Where elapsed time begins once the clock has started. */
  countFrom: 'start' | 'opened';
  /** With countFrom 'opened': leave out the earlier stretches in which `pauseWhen` held. */
  excludeEarlierPauses: boolean;
  pauseWhen?: Condition;
  stopWhen: Condition;
  resetWhen?: Condition;
  cancelWhen: Condition | 'startNoLongerHolds' | 'never';
  onReopen: 'resume' | 'ignore';
  /** The first whose `when` holds (none given: always). */
  limits: { when?: Condition; duration: string }[];
  /** The first whose `when` holds, so that the calendar can follow the team that holds the ticket. */
  calendars: { when?: Condition; calendarId: string }[];
  warnAtPercent: number[];
};

/** What became of the fields at one instant. Ascending; the first is the opening and sets all it knows. */
export type HistoryEvent = { at: number; set: Fields };

/** Where a clock stands. */
export type ClockState = 'notStarted' | 'running' | 'paused' | 'met' | 'missed' | 'cancelled';

/** A clock as read at one instant. Instants in epoch ms, durations in working ms. */
export type ClockReading = {
  state: ClockState;
  /** When this clock started (the last start, if it started afresh). */
  startedAt: number | null;
  countedFrom: number | null;
  elapsed: number;
  /** Working time left out since countedFrom. */
  pausedFor: number;
  limit: number | null;
  /** 100 * elapsed / limit, not capped. */
  percent: number | null;
  dueAt: number | null;
  breachedAt: number | null;
  stoppedAt: number | null;
  /** Each threshold once per start or reset, at the instant it was crossed. */
  warnings: { percent: number; at: number }[];
};

/** A span between two changes, as the clock took it. */
export type ClockStretch = {
  from: number;
  to: number;
  calendarId: string | null;
  /** What the clock did: ran, was held, or had not started or had ended. */
  mode: 'running' | 'paused' | 'idle';
  /** Whether `pauseWhen` held, also where the clock was idle. */
  isPauseHeld: boolean;
  /** Working time in the span by its calendar. */
  worked: number;
};

/** Calendars ready for reckoning, by id. */
export type Calendars = Record<string, CompiledCalendar>;
