import type { Sequelize } from 'sequelize';
import type { ImportKind, ImportProblem, Reading } from '../../contract/imports';
import { id, instant, integer, json, Table, text } from '../database/table';

/** A table of tickets or people that was sent; its file lies under the same id. `done` counts rows, from the first. */
export type ImportRow = {
  id: string;
  kind: ImportKind;
  personId: string;
  name: string;
  at: number;
  encoding: string;
  delimiter: string;
  headings: string[];
  sample: string[][];
  rows: number;
  reading: Reading | null;
  state: 'arrived' | 'running' | 'done' | 'stopped';
  done: number;
  written: number;
  refused: ImportProblem[];
  /** Until when a process has it; one that dies loses it. */
  leaseUntil: number;
};

export function createImportTables(sequelize: Sequelize) {
  return {
    imports: new Table<ImportRow>(sequelize, 'imports', {
      ...{
        id,
        kind: text(10),
        personId: id,
        name: text(255),
        at: instant,
        encoding: text(20),
        delimiter: text(2),
      },
      ...{ headings: json, sample: json, rows: integer, reading: json, state: text(10) },
      ...{ done: integer, written: integer, refused: json, leaseUntil: instant },
    }),
  };
}
