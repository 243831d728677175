import type { Sequelize } from 'sequelize';
import type { Chart, Stretch, TicketFact } from '../../core/measures';
import { flag, id, instant, integer, json, Table, text } from '../database/table';

/** What figures count of a ticket. */
export type TicketFactRow = TicketFact & { number: number };

/** Charts that are looked at together. */
export type BoardRow = {
  id: string;
  name: string;
  ownerId: string;
  /** The teams that it is shared with. */
  teamIds: string[];
  /** Whether it is shared with everyone who reads figures. */
  isForAll: boolean;
  stretch: Stretch;
  charts: Chart[];
  version: number;
  createdAt: number;
  changedAt: number;
};

const FACT_COLUMNS = {
  ...{ number: integer, opened: instant, answered: instant, done: instant, ended: instant, closed: instant },
  ...{ kind: text(20), serviceId: id, teamId: id, groupId: id, assigneeId: id, requesterId: id },
  ...{ isConfidential: flag, state: text(20), heldFor: text(20), priority: text(20), impact: text(20) },
  ...{ urgency: text(20), via: text(20), isDeclined: flag, rating: integer, teams: integer },
  ...{ reopened: integer, messages: integer, toAnswer: integer, toDone: integer, workToAnswer: integer },
  ...{ workToDone: integer, own: integer, waited: integer, heldForRequester: integer },
  ...{ heldForSupplier: integer, heldForApproval: integer, heldForOther: integer, upTo: integer },
};

/** The columns of a fact, the newest entry last: what is older than what is there is not written. */
export const FACT_NAMES = Object.keys(FACT_COLUMNS);

export function createMeasureTables(sequelize: Sequelize) {
  return {
    ticketFacts: new Table<TicketFactRow>(sequelize, 'ticket_facts', FACT_COLUMNS, ['number']),
    boards: new Table<BoardRow>(sequelize, 'boards', {
      ...{ id, name: text(200), ownerId: id, teamIds: json, isForAll: flag, stretch: json, charts: json },
      ...{ version: integer, createdAt: instant, changedAt: instant },
    }),
  };
}
