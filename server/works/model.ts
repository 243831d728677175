import type { Sequelize } from 'sequelize';
import type { Level } from '../../core/estate';
import type { LocalText } from '../../core/forms';
import type { WorkFacts, WorkSort } from '../../core/works';
import { flag, id, instant, integer, json, longText, Table, text } from '../database/table';

/** What a change has beside its ticket. */
export type WorkRow = WorkFacts & {
  ticketNumber: number;
  sort: WorkSort;
  fromAt: number | null;
  toAt: number | null;
  why: string;
  test: string;
  takeBack: string;
  /** As they were reckoned when it was submitted. */
  impact: Level | null;
  likelihood: Level | null;
  risk: Level | null;
  /** A risk that somebody said otherwise, and why. */
  riskSaid: Level | null;
  riskReason: string;
  endedAt: number | null;
  review: string;
  reviewedAt: number | null;
  problemNumber: number | null;
  version: number;
};

/** What a service of changes fills in. */
export type WorkTemplateRow = {
  serviceId: string;
  /** Its changes are agreed beforehand. */
  isStandard: boolean;
  /** How long it usually takes. */
  minutes: number;
  why: LocalText;
  test: LocalText;
  takeBack: LocalText;
  thingIds: string[];
  version: number;
};

/** A stretch without changes. */
export type FreezeRow = {
  id: string;
  name: LocalText;
  fromAt: number;
  toAt: number;
  thingIds: string[];
  /** Whether it is for everything that there is. */
  isEverything: boolean;
  version: number;
};

export function createWorkTables(sequelize: Sequelize) {
  return {
    works: new Table<WorkRow>(
      sequelize,
      'works',
      {
        ...{
          ticketNumber: integer,
          sort: text(10),
          fromAt: instant,
          toAt: instant,
          why: longText,
          test: longText,
        },
        ...{ takeBack: longText, impact: text(10), likelihood: text(10), risk: text(10), riskSaid: text(10) },
        ...{
          riskReason: text(500),
          submittedAt: instant,
          startedAt: instant,
          endedAt: instant,
          outcome: text(10),
        },
        ...{ review: longText, reviewedAt: instant, problemNumber: integer, version: integer },
      },
      ['ticketNumber'],
    ),
    workThings: new Table<{ ticketNumber: number; thingId: string }>(
      sequelize,
      'work_things',
      { ticketNumber: integer, thingId: id },
      ['ticketNumber', 'thingId'],
    ),
    workTemplates: new Table<WorkTemplateRow>(
      sequelize,
      'work_templates',
      {
        ...{ serviceId: id, isStandard: flag, minutes: integer, why: json, test: json, takeBack: json },
        ...{ thingIds: json, version: integer },
      },
      ['serviceId'],
    ),
    freezes: new Table<FreezeRow>(sequelize, 'freezes', {
      ...{
        id,
        name: json,
        fromAt: instant,
        toAt: instant,
        thingIds: json,
        isEverything: flag,
        version: integer,
      },
    }),
  };
}
