import type { Sequelize } from 'sequelize';
import type { ProblemStage, ProblemTie } from '../../core/problems';
import { id, instant, integer, longText, Table, text } from '../database/table';

/** What a problem has beside its ticket. */
export type ProblemRow = {
  ticketNumber: number;
  stage: ProblemStage;
  /** Of which kind the cause is, by the organisation's own list. */
  causeKindId: string | null;
  cause: string;
  /** What one does meanwhile. */
  workaround: string;
  articleId: string | null;
  solvedAt: number | null;
  /** When it was back, after it had been solved. */
  backAt: number | null;
  version: number;
};

/** An incident that may come of a problem, or does. */
export type ProblemIncidentRow = {
  problemNumber: number;
  incidentNumber: number;
  tie: ProblemTie;
  reason: string;
  at: number;
};

export function createProblemTables(sequelize: Sequelize) {
  return {
    problems: new Table<ProblemRow>(
      sequelize,
      'problems',
      {
        ...{ ticketNumber: integer, stage: text(10), causeKindId: id, cause: longText, workaround: longText },
        ...{ articleId: id, solvedAt: instant, backAt: instant, version: integer },
      },
      ['ticketNumber'],
    ),
    problemIncidents: new Table<ProblemIncidentRow>(
      sequelize,
      'problem_incidents',
      { problemNumber: integer, incidentNumber: integer, tie: text(10), reason: text(500), at: instant },
      ['problemNumber', 'incidentNumber'],
    ),
  };
}
