import type { Fields } from '../conditions';
import type { CompiledTarget } from './compiled';
import { dueIn, getInForce, type InForce } from './inForce';
import type { Calendars, ClockReading, ClockState, ClockStretch } from './types';

/**
 * One clock, replayed stretch by stretch. `enter` applies what an event instant does to it, `leave` lets the time
 * of the stretch pass. Moving parts: `state`; what was counted (`elapsed`, `pausedFor`); what it was last judged
 * by (`judgedBy`); and the due instant, which a breached clock keeps for as long as the limit it was computed for.
 */
export class Clock {
  private state: ClockState = 'notStarted';
  private startedAt: number | null = null;
  private countedFrom: number | null = null;
  private elapsed = 0;
  private pausedFor = 0;
  private warnings: ClockReading['warnings'] = [];
  private breachedAt: number | null = null;
  private stoppedAt: number | null = null;
  private dueAt: number | null = null;
  private keptDue: { at: number; limit: number } | null = null;
  /** Where the due instant is to be looked for once it is asked: `missing` working time after `from`. */
  private dueLater: { inForce: InForce; from: number; missing: number } | null = null;
  private judgedBy: number | null = null;
  private limit: number | null = null;
  private inForce: InForce = { calendarId: null, calendar: null, limit: null };
  /** Working time since the opening, for clocks that count from it, and since the stop, for a reopening. */
  private earlier = { counted: 0, paused: 0 };
  private sinceStop = 0;
  private pauseHeld = false;
  private resetHeld = false;

  constructor(
    private readonly target: CompiledTarget,
    private readonly calendars: Calendars,
    private readonly openedAt: number,
  ) {}

  /** Applies the fields that hold from `s` on. */
  enter(s: number, fields: Fields): void {
    const { target } = this;
    this.inForce = getInForce(target, this.calendars, fields);
    this.pauseHeld = target.pauses(fields);
    const resetHeldBefore = this.resetHeld;
    this.resetHeld = target.resets(fields);
    const isReset = this.resetHeld && !resetHeldBefore;

    if (this.isGoing()) {
      if (target.stops(fields)) this.stop(s);
      else if (target.cancels(fields)) this.cancel();
      else this.go(isReset ? s : null);
    } else if (this.canResume(fields)) {
      this.stoppedAt = null;
      this.pausedFor += this.sinceStop;
      this.go(isReset ? s : null);
    } else if (this.canStart(fields)) this.start(s);

    if (this.isGoing()) this.judge();
    else if (this.state === 'notStarted') this.limit = this.inForce.limit;
  }

  /** The stretch that begins at `s`, by what holds now. */
  describe(s: number, x: number): Omit<ClockStretch, 'worked'> {
    const mode = this.isGoing() ? (this.state as 'running' | 'paused') : 'idle';
    return { from: s, to: x, calendarId: this.inForce.calendarId, mode, isPauseHeld: this.pauseHeld };
  }

  /** Lets the time from `s` until `x` pass. @returns how much of it was working time */
  leave(s: number, x: number): number {
    const mode = this.state;
    const { calendar } = this.inForce;
    const worked = calendar ? calendar.workingBetween(s, x) : 0;
    if (mode === 'running') this.run(s, x, worked);
    else if (mode === 'paused') this.hold(s, worked);
    else if (this.state === 'met' || this.state === 'missed') this.sinceStop += worked;
    this.earlier[this.pauseHeld ? 'paused' : 'counted'] += worked;
    return worked;
  }

  read(): ClockReading {
    const { state, startedAt, countedFrom, elapsed, pausedFor, limit, breachedAt, stoppedAt } = this;
    const percent = limit === null || state === 'notStarted' ? null : (100 * elapsed) / limit;
    const dueAt = state === 'notStarted' || state === 'cancelled' ? null : this.readDue();
    const warnings = [...this.warnings].sort((a, b) => a.at - b.at || a.percent - b.percent);
    return {
      state,
      startedAt,
      countedFrom,
      elapsed,
      pausedFor,
      limit,
      percent,
      dueAt,
      breachedAt,
      stoppedAt,
      warnings,
    };
  }

  private isGoing(): boolean {
    return this.state === 'running' || this.state === 'paused';
  }

  private isWanted(fields: Fields): boolean {
    const { starts, stops, cancels } = this.target;
    return starts(fields) && !stops(fields) && !cancels(fields);
  }

  private canResume(fields: Fields): boolean {
    const isStopped = this.state === 'met' || this.state === 'missed';
    return isStopped && this.target.definition.onReopen === 'resume' && this.isWanted(fields);
  }

  private canStart(fields: Fields): boolean {
    return (this.state === 'notStarted' || this.state === 'cancelled') && this.isWanted(fields);
  }

  private stop(s: number): void {
    this.state = this.breachedAt === null ? 'met' : 'missed';
    this.stoppedAt = s;
    this.sinceStop = 0;
  }

  private cancel(): void {
    this.state = 'cancelled';
    this.stoppedAt = null;
  }

  private start(s: number): void {
    const { countFrom, excludeEarlierPauses } = this.target.definition;
    this.clear(s);
    this.startedAt = s;
    this.judgedBy = null;
    if (countFrom === 'opened') {
      const { counted, paused } = this.earlier;
      this.countedFrom = this.openedAt;
      this.elapsed = excludeEarlierPauses ? counted : counted + paused;
      this.pausedFor = excludeEarlierPauses ? paused : 0;
    }
    this.go(null);
  }

  /** Runs or holds; with `resetAt` from nothing again. */
  private go(resetAt: number | null): void {
    if (resetAt !== null) this.clear(resetAt);
    this.state = this.pauseHeld ? 'paused' : 'running';
  }

  private clear(s: number): void {
    this.countedFrom = s;
    this.elapsed = 0;
    this.pausedFor = 0;
    this.warnings = [];
    this.breachedAt = null;
    this.keptDue = null;
  }

  /** A changed limit judges anew: it may withdraw a breach and warnings, what was counted carries over. */
  private judge(): void {
    const { limit } = this.inForce;
    this.limit = limit;
    if (limit === null || limit === this.judgedBy) return;
    this.judgedBy = limit;
    if (this.elapsed <= limit) {
      this.breachedAt = null;
      this.keptDue = null;
    }
    this.warnings = this.warnings.filter(({ percent }) => percent * limit <= 100 * this.elapsed);
  }

  private readDue(): number | null {
    if (!this.dueLater) return this.dueAt;
    const { inForce, from, missing } = this.dueLater;
    return dueIn(inForce, from, missing);
  }

  private run(s: number, x: number, worked: number): void {
    this.dueLater = null;
    this.dueAt = this.dueWhileRunning(s, x, worked);
    this.warn(s, x, worked);
    this.elapsed += worked;
  }

  private dueWhileRunning(s: number, x: number, worked: number): number | null {
    const { limit } = this;
    if (limit === null) return null;
    const hadBreached = this.breachedAt !== null;
    if (hadBreached && this.keptDue?.limit === limit) return this.keptDue.at;
    // Not enough was worked to reach it: it lies beyond x, and is looked for only when it is read.
    if (!hadBreached && worked < limit - this.elapsed) {
      this.dueLater = { inForce: this.inForce, from: s, missing: limit - this.elapsed };
      return null;
    }
    const due = dueIn(this.inForce, s, limit - this.elapsed);
    if (due === null) return hadBreached ? (this.keptDue?.at ?? null) : null;
    if (!hadBreached && x > due) this.breachedAt = Math.max(s, due);
    if (this.breachedAt !== null) this.keptDue = { at: due, limit };
    return due;
  }

  private warn(s: number, x: number, worked: number): void {
    const { limit } = this;
    if (limit === null) return;
    for (const percent of this.target.thresholds) {
      if (this.warnings.some((warning) => warning.percent === percent)) continue;
      const missing = Math.ceil((percent * limit) / 100) - this.elapsed;
      if (worked < missing) continue;
      const crossed = dueIn(this.inForce, s, missing);
      if (crossed !== null && crossed <= x) this.warnings.push({ percent, at: Math.max(s, crossed) });
    }
  }

  /** A held clock neither breaches nor warns, unless it is overdue as it enters the stretch. */
  private hold(s: number, worked: number): void {
    const { limit } = this;
    this.dueLater = null;
    if (limit !== null && this.breachedAt === null && this.elapsed > limit) {
      const due = dueIn(this.inForce, s, limit - this.elapsed);
      if (due !== null) {
        this.breachedAt = s;
        this.keptDue = { at: due, limit };
      }
    }
    this.dueAt = limit !== null && this.breachedAt !== null ? (this.keptDue?.at ?? null) : null;
    this.pausedFor += worked;
  }
}
