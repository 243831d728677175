import type { Sequelize } from 'sequelize';
import { id, instant, Table } from '../database/table';

/** Someone is away in [fromAt, toAt). */
export type AbsenceRow = {
  id: string;
  personId: string;
  fromAt: number;
  toAt: number;
  /** Who decides in their place meanwhile; null: it waits for them. */
  delegateId: string | null;
};

export function createAbsenceTables(sequelize: Sequelize) {
  return {
    absences: new Table<AbsenceRow>(sequelize, 'absences', {
      id,
      personId: id,
      fromAt: instant,
      toAt: instant,
      delegateId: id,
    }),
  };
}
