import type { Sequelize } from 'sequelize';
import { autoNumber, instant, integer, json, Table, text } from '../database/table';

/** Reading all clocks of open work anew, after a calendar or a target changed. `afterNumber` is how far it has come. */
export type RecountRow = {
  id: number;
  why: string;
  /** The promises whose going clocks are read anew; null: every clock of open work. */
  targetIds: string[] | null;
  afterNumber: number;
  counted: number;
  moved: number;
  startedAt: number;
  finishedAt: number | null;
};

export function createRecountTables(sequelize: Sequelize) {
  return {
    recounts: new Table<RecountRow>(sequelize, 'recounts', {
      id: autoNumber,
      why: text(120),
      targetIds: json,
      afterNumber: integer,
      counted: integer,
      moved: integer,
      startedAt: instant,
      finishedAt: instant,
    }),
  };
}
