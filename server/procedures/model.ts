import type { Sequelize } from 'sequelize';
import type { LocalText } from '../../core/forms';
import type { ProcedureFor, ProcedureStep } from '../../core/procedures';
import { id, instant, integer, json, Table, text } from '../database/table';

/** How a team does a service or a kind of work. */
export type ProcedureRow = ProcedureFor & {
  id: string;
  teamId: string;
  name: LocalText;
  overview: LocalText;
  steps: ProcedureStep[];
  version: number;
};

export type ProcedureTickRow = { ticketNumber: number; stepId: string; personId: string; at: number };

export function createProcedureTables(sequelize: Sequelize) {
  return {
    procedures: new Table<ProcedureRow>(sequelize, 'procedures', {
      id,
      teamId: id,
      serviceId: id,
      kind: text(10),
      name: json,
      overview: json,
      steps: json,
      version: integer,
    }),
    procedureTicks: new Table<ProcedureTickRow>(
      sequelize,
      'procedure_ticks',
      { ticketNumber: integer, stepId: id, personId: id, at: instant },
      ['ticketNumber', 'stepId'],
    ),
  };
}
