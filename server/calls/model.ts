import type { Sequelize } from 'sequelize';
import { autoNumber, instant, integer, Table, text } from '../database/table';

/** A call to an outside address, as it went. `status`: of HTTP; null: nothing came back. `ms`: how long it took. */
export type OutgoingCallRow = {
  id: number;
  at: number;
  kind: 'step' | 'webhook' | 'signOn';
  ref: string;
  /** Without what stands after the path: that may be a secret. */
  address: string;
  status: number | null;
  ms: number;
  /** Of the answer. */
  bytes: number;
  error: string | null;
};

export function createCallTables(sequelize: Sequelize) {
  return {
    outgoingCalls: new Table<OutgoingCallRow>(sequelize, 'outgoing_calls', {
      ...{ id: autoNumber, at: instant, kind: text(20), ref: text(60), address: text(500) },
      ...{ status: integer, ms: integer, bytes: integer, error: text(300) },
    }),
  };
}
