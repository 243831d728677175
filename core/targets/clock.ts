import type { Fields } from '../conditions';
import { QUESTION, type CompiledTarget } from './compiled';
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
  /** By what it ran towards a due instant that is looked for once it is asked; null: `dueAt` is known. */
  private ranBy: InForce | null = null;
  private ranFrom = 0;
  private toRun = 0;
  private judgedBy: number | null = null;
  private limit: number | null = null;
  private inForce: InForce = { calendarId: null, calendar: null, limit: null };
  /** Working time since the opening, for clocks that count from it, and since the stop, for a reopening. */
  private earlierCounted = 0;
  private earlierPaused = 0;
  private sinceStop = 0;
  private startHeld = false;
  private pauseHeld = false;
  private stopHeld = false;
  private resetHeld = false;
  private cancelHeld = false;

  constructor(
    private readonly target: CompiledTarget,
    private readonly calendars: Calendars,
    private readonly openedAt: number,
  ) {}

  /** Applies the fields that hold from `s` on; only the questions given may have another answer than before. */
  enter(s: number, fields: Fields, questions: number): void {
    const { target } = this;
    const resetHeldBefore = this.resetHeld;
    if (questions & QUESTION.inForce) this.inForce = getInForce(target, this.calendars, fields);
    if (questions & QUESTION.starts) this.startHeld = target.starts(fields);
    if (questions & QUESTION.pauses) this.pauseHeld = target.pauses(fields);
    if (questions & QUESTION.stops) this.stopHeld = target.stops(fields);
    if (questions & QUESTION.resets) this.resetHeld = target.resets(fields);
    if (questions & QUESTION.cancels) this.cancelHeld = target.cancels(fields);
    const isReset = this.resetHeld && !resetHeldBefore;

    if (this.isGoing()) {
      if (this.stopHeld) this.stop(s);
      else if (this.cancelHeld) this.cancel();
      else this.go(isReset ? s : null);
    } else if (this.canResume()) {
      this.stoppedAt = null;
      this.pausedFor += this.sinceStop;
      this.go(isReset ? s : null);
    } else if (this.canStart()) this.start(s);

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
    if (this.pauseHeld) this.earlierPaused += worked;
    else this.earlierCounted += worked;
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

  private isWanted(): boolean {
    return this.startHeld && !this.stopHeld && !this.cancelHeld;
  }

  private canResume(): boolean {
    const isStopped = this.state === 'met' || this.state === 'missed';
    return isStopped && this.target.definition.onReopen === 'resume' && this.isWanted();
  }

  private canStart(): boolean {
    return (this.state === 'notStarted' || this.state === 'cancelled') && this.isWanted();
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
      const { earlierCounted, earlierPaused } = this;
      this.countedFrom = this.openedAt;
      this.elapsed = excludeEarlierPauses ? earlierCounted : earlierCounted + earlierPaused;
      this.pausedFor = excludeEarlierPauses ? earlierPaused : 0;
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
    return this.ranBy ? dueIn(this.ranBy, this.ranFrom, this.toRun) : this.dueAt;
  }

  private run(s: number, x: number, worked: number): void {
    this.ranBy = null;
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
      this.ranBy = this.inForce;
      this.ranFrom = s;
      this.toRun = limit - this.elapsed;
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
      const missing = Math.ceil((percent * limit) / 100) - this.elapsed;
      // They rise: where this one is not reached, none of the later ones is.
      if (worked < missing) return;
      if (this.warnings.some((warning) => warning.percent === percent)) continue;
      const crossed = dueIn(this.inForce, s, missing);
      if (crossed !== null && crossed <= x) this.warnings.push({ percent, at: Math.max(s, crossed) });
    }
  }

  /** A held clock neither breaches nor warns, unless it is overdue as it enters the stretch. */
  private hold(s: number, worked: number): void {
    const { limit } = this;
    this.ranBy = null;
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
