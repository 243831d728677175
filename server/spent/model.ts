import type { Sequelize } from 'sequelize';
import type { SpentOn } from '../../core/spent';
import { flag, id, instant, integer, Table, text } from '../database/table';

/** Time that someone spent on a ticket. While its timer runs, `minutes` is null and `runningFor` its person. */
export type SpentRow = {
  id: string;
  personId: string;
  ticketNumber: number;
  startedAt: number;
  minutes: number | null;
  category: SpentOn;
  note: string;
  /** Added or corrected by hand. */
  isByHand: boolean;
  /** One at a time: unique. */
  runningFor: string | null;
};

export function createSpentTables(sequelize: Sequelize) {
  return {
    spent: new Table<SpentRow>(sequelize, 'time_spent', {
      id,
      personId: id,
      ticketNumber: integer,
      startedAt: instant,
      minutes: integer,
      category: text(20),
      note: text(500),
      isByHand: flag,
      runningFor: id,
    }),
  };
}
