import type { Sequelize } from 'sequelize';
import type { BulkJob } from '../../contract/bulk';
import { id, instant, integer, json, Table, text } from '../database/table';

/** Something that one person does to many tickets. `undoes`: the job whose deeds it takes back. */
export type BulkJobRow = {
  id: string;
  personId: string;
  at: number;
  deed: BulkJob['deed'];
  total: number;
  state: 'running' | 'done' | 'stopped';
  undoes: string | null;
  undoneBy: string | null;
  /** Until when a process has it; one that dies loses it. */
  leaseUntil: number;
};

/** A ticket of it, as it was when it was chosen; `code`: why it was refused; `entryId`: what was recorded of it. */
export type BulkItemRow = {
  jobId: string;
  number: number;
  version: number;
  state: 'waiting' | 'done' | 'refused';
  code: string | null;
  entryId: number | null;
};

export function createBulkTables(sequelize: Sequelize) {
  return {
    bulkJobs: new Table<BulkJobRow>(sequelize, 'bulk_jobs', {
      id,
      personId: id,
      at: instant,
      deed: json,
      total: integer,
      state: text(10),
      undoes: id,
      undoneBy: id,
      leaseUntil: instant,
    }),
    bulkItems: new Table<BulkItemRow>(
      sequelize,
      'bulk_items',
      { jobId: id, number: integer, version: integer, state: text(10), code: text(40), entryId: integer },
      ['jobId', 'number'],
    ),
  };
}
