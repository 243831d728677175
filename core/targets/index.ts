export type {
  Calendars,
  ClockReading,
  ClockState,
  ClockStretch,
  HistoryEvent,
  TargetDefinition,
} from './types';
export { readClock, replayClock } from './readClock';
export { reckonClock, type Reckoning, type ReckoningRow } from './reckoning';
export { showClock, type ShownClock } from './shown';
export { PercentNotPositive, TargetError, UnknownCalendar } from './errors';
