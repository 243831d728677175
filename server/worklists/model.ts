import type { Sequelize } from 'sequelize';
import type { WorklistDefinition } from '../../core/worklist';
import { id, instant, integer, json, Table, text } from '../database/table';

export type WorklistRow = {
  id: string;
  ownerId: string;
  /** The team that it is shared with; null: its owner's alone. */
  teamId: string | null;
  name: string;
  definition: WorklistDefinition;
  version: number;
  changedAt: number;
};

export function createWorklistTables(sequelize: Sequelize) {
  return {
    worklists: new Table<WorklistRow>(sequelize, 'worklists', {
      id,
      ownerId: id,
      teamId: id,
      name: text(120),
      definition: json,
      version: integer,
      changedAt: instant,
    }),
  };
}
