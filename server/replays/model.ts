import type { Sequelize } from 'sequelize';
import type { Asked, ReplayResult } from '../../contract/compliance';
import { id, instant, integer, json, Table, text } from '../database/table';

/** A look at what would have been: asked by someone, worked off in a thread, with what came out. */
export type ReplayRow = {
  id: string;
  personId: string;
  at: number;
  asked: Asked;
  state: 'running' | 'done' | 'stopped' | 'failed';
  done: number;
  total: number;
  result: ReplayResult | null;
};

export function createReplayTables(sequelize: Sequelize) {
  return {
    replays: new Table<ReplayRow>(sequelize, 'replays', {
      ...{
        id,
        personId: id,
        at: instant,
        asked: json,
        state: text(12),
        done: integer,
        total: integer,
        result: json,
      },
    }),
  };
}
