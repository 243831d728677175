import type { Sequelize } from 'sequelize';
import type { ServicePlan, ServiceStep, StepState } from '../../core/plans';
import { id, instant, integer, json, longText, Table, text } from '../database/table';

/** A ticket's plan as a whole. */
export type PlanRow = {
  ticketNumber: number;
  legs: ServicePlan['legs'];
  startedAt: number;
  /** What the requester was told when the request was raised. */
  promisedAt: number;
  /** When it will be finished, as last computed. */
  forecastAt: number;
  /** The forecast of which its holder was told that it is past the promise; null while it is not. */
  slippedTo: number | null;
  /** The forecast of which its requester was told that it is past the promise. */
  slipTold: number | null;
  finishedAt: number | null;
};

/** A step of a ticket's plan, with the definition that the request was raised with. */
export type StepRow = {
  ticketNumber: number;
  stepId: string;
  position: number;
  definition: ServiceStep;
  state: StepState | 'waiting';
  teamId: string | null;
  groupId: string | null;
  assigneeId: string | null;
  startedAt: number | null;
  finishedAt: number | null;
  /** By when it is needed so that the plan ends as forecast; written when it begins. */
  neededBy: number;
  /** Why it was left out, or why it failed. */
  reason: string | null;
  /** The places of its checklist that are ticked. */
  ticked: number[];
  /** How asking an outside address goes; null where the step asks none. */
  sending: { tries: number; sentAt: number | null; error: string | null } | null;
  /** By which the outside address names the step in its answer. */
  answerToken: string | null;
  /** Which place a lead has given it among the requests that are ranked. */
  place: number | null;
  version: number;
};

export function createPlanTables(sequelize: Sequelize) {
  return {
    plans: new Table<PlanRow>(
      sequelize,
      'plans',
      {
        ticketNumber: integer,
        legs: json,
        startedAt: instant,
        promisedAt: instant,
        forecastAt: instant,
        slippedTo: instant,
        slipTold: instant,
        finishedAt: instant,
      },
      ['ticketNumber'],
    ),
    planSteps: new Table<StepRow>(
      sequelize,
      'plan_steps',
      {
        ticketNumber: integer,
        stepId: id,
        position: integer,
        definition: json,
        state: text(10),
        teamId: id,
        groupId: id,
        assigneeId: id,
        startedAt: instant,
        finishedAt: instant,
        neededBy: instant,
        reason: longText,
        ticked: json,
        sending: json,
        answerToken: text(32),
        place: integer,
        version: integer,
      },
      ['ticketNumber', 'stepId'],
    ),
  };
}
