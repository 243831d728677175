export type {
  Calendars,
  ClockReading,
  ClockState,
  ClockStretch,
  HistoryEvent,
  TargetDefinition,
} from './types';
export { readClock, replayClock } from './readClock';
export { addsToTotal, reckonClock, type Reckoning, type ReckoningRow } from './reckoning';
export {
  CANCELS,
  RESETS,
  STOPS,
  toDefinition,
  toSentence,
  type LimitWords,
  type StartWords,
  type TargetSentence,
} from './sentence';
export { canHold, checkTarget, findDouble, type TargetProblem } from './checkTarget';
export { BREACH_PERCENT, findNotice, listWarnPercents, type TargetNotice } from './notices';
export { moveTeamCalendar } from './teamCalendar';
export { twoPromises } from './twoPromises';
export { toIsoSpan, toTypedSpan } from './span';
export { showClock, type ShownClock } from './shown';
export { isGoing, isPastDue, standingOf, standingSql, type JudgedClock, type Standing } from './standing';
export { readLive, tightestClock, tightestDue, type KeptClock, type LiveClock, type Tone } from './live';
export { calendarOf, heldSpans, isDelivered, LATE, listNotices, type ClockNotice } from './pending';
export { PercentNotPositive, TargetError, UnknownCalendar } from './errors';
export { stopsAtItsMeasure, type Measured } from './checkMeasure';
