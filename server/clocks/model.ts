import type { Sequelize } from 'sequelize';
import type { ClockState, TargetDefinition, TargetNotice } from '../../core/targets';
import { flag, id, instant, integer, json, Table, text } from '../database/table';

/** `measures` says what a target is about, so that pages can name and order clocks. */
export type TargetRow = {
  id: string;
  definition: TargetDefinition;
  measures: 'firstAnswer' | 'takenUp' | 'resolution' | 'delivery' | 'decision';
  notices: TargetNotice[];
  /** The team whose own promise it is; null: the organisation's. */
  teamId: string | null;
  isOn: boolean;
  /** Which edition of its definition this is; clocks say by which they run. */
  edition: number;
  /** Where only new work takes this edition: from when on; what was opened before goes by the one before. */
  newFrom: number | null;
  position: number;
  version: number;
};

/** A clock's reading at its last event, for lists and timers; the journal stays the truth. */
export type ClockRow = {
  ticketNumber: number;
  /** Which piece of work it times, as in the journal. */
  work: string;
  targetId: string;
  /** The edition of the promise by which it runs. */
  edition: number;
  state: ClockState;
  startedAt: number | null;
  countedFrom: number | null;
  elapsed: number;
  pausedFor: number;
  limit: number | null;
  dueAt: number | null;
  breachedAt: number | null;
  stoppedAt: number | null;
  calendarId: string | null;
  held: [number, number | null][];
  /** The notices that have been given. */
  fired: string[];
  /** Those still to be given, the earliest first: 'late' or a percentage, and its instant. */
  owed: [what: string, at: number][];
  /** When the first of them falls due. */
  nextAt: number | null;
};

/** A definition as it was made or changed, by whom, and whether clocks that were going then took it over. */
export type TargetEditionRow = {
  targetId: string;
  edition: number;
  definition: TargetDefinition;
  at: number;
  personId: string | null;
  isForOpen: boolean;
};

export function createClockTables(sequelize: Sequelize) {
  return {
    targets: new Table<TargetRow>(sequelize, 'targets', {
      id,
      definition: json,
      measures: text(20),
      notices: json,
      teamId: id,
      isOn: flag,
      edition: integer,
      newFrom: instant,
      position: integer,
      version: integer,
    }),
    targetEditions: new Table<TargetEditionRow>(
      sequelize,
      'target_editions',
      { targetId: id, edition: integer, definition: json, at: instant, personId: id, isForOpen: flag },
      ['targetId', 'edition'],
    ),
    clocks: new Table<ClockRow>(
      sequelize,
      'clocks',
      {
        ticketNumber: integer,
        work: text(60),
        targetId: id,
        edition: integer,
        state: text(12),
        startedAt: instant,
        countedFrom: instant,
        elapsed: integer,
        pausedFor: integer,
        limit: integer,
        dueAt: instant,
        breachedAt: instant,
        stoppedAt: instant,
        calendarId: id,
        held: json,
        fired: json,
        owed: json,
        nextAt: instant,
      },
      ['ticketNumber', 'work', 'targetId'],
    ),
  };
}
