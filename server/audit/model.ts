import type { Sequelize } from 'sequelize';
import { autoNumber, instant, integer, Table, text } from '../database/table';

/**
 * The seal of a stretch of the journal. `hash`: the SHA-256 over the hash of the seal before it and the hashes of the
 * lines of the entries from one position to the other, in their order.
 */
export type SealRow = {
  id: number;
  at: number;
  firstPosition: number;
  lastPosition: number;
  entries: number;
  hash: string;
  previousHash: string;
};

export function createAuditTables(sequelize: Sequelize) {
  return {
    seals: new Table<SealRow>(sequelize, 'audit_seals', {
      ...{ id: autoNumber, at: instant, firstPosition: integer, lastPosition: integer, entries: integer },
      ...{ hash: text(64), previousHash: text(64) },
    }),
  };
}
