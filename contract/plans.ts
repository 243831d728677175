import * as z from 'zod';
import { STEP_KINDS, STEP_MOVES } from '../core/plans';
import { endpoint } from './endpoint';
import { paths } from './paths';
import {
  idSchema,
  instantSchema,
  localTextSchema,
  idParams,
  numberParams,
  okSchema,
  personRefSchema,
  textSchema,
} from './shared';

/** A step of a ticket's plan. */
export const planStepSchema = z.object({
  id: idSchema,
  version: z.number().int(),
  name: localTextSchema,
  kind: z.enum(STEP_KINDS),
  state: z.enum(['waiting', 'active', 'done', 'skipped', 'failed']),
  /** False where it has not come up and what is known now would leave it out. */
  isWanted: z.boolean(),
  team: z.object({ id: idSchema, name: localTextSchema }).nullable(),
  assignee: personRefSchema.nullable(),
  startedAt: instantSchema.nullable(),
  finishedAt: instantSchema.nullable(),
  earliestStart: instantSchema,
  earliestFinish: instantSchema,
  latestFinish: instantSchema,
  /** Working ms that it may take longer without moving the end. */
  slack: z.number(),
  /** Whether it is one of the steps that decide the end. */
  decides: z.boolean(),
  /** What it waits for, where its turn has not come. */
  waitsFor: z.array(localTextSchema),
  notBefore: instantSchema.nullable(),
  reason: z.string().nullable(),
  checklist: z.array(z.object({ text: localTextSchema, isTicked: z.boolean() })),
  approvalId: idSchema.nullable(),
  /** How asking an outside address goes. */
  sending: z
    .object({ tries: z.number().int(), sentAt: instantSchema.nullable(), error: z.string().nullable() })
    .nullable(),
  /** While it is ranked: its place, and among how many. */
  ranking: z.object({ place: z.number().int(), count: z.number().int() }).nullable(),
  moves: z.array(z.enum(STEP_MOVES)),
});
/** A step of a ticket's plan. */
export type PlanStepView = z.infer<typeof planStepSchema>;

/** The plan of a ticket, with what it promises and forecasts. */
export const planSchema = z.object({
  startedAt: instantSchema,
  promisedAt: instantSchema,
  forecastAt: instantSchema,
  finishedAt: instantSchema.nullable(),
  legs: z.array(z.object({ id: idSchema, name: localTextSchema, steps: z.array(planStepSchema) })),
  /** Whether the requester has not been told yet that it slips; someone of the team may tell them now. */
  mayTellSlip: z.boolean(),
  /** Whether a step may be added by the viewer. */
  mayAdd: z.boolean(),
  /** What would bring a late plan back: a step, and by how much working time it would have to be shorter. */
  waysBack: z.array(z.object({ step: idSchema, shorterBy: z.number() })),
  /** When the team that holds the ticket works, over the time of the plan. */
  windows: z.array(z.object({ from: instantSchema, to: instantSchema })),
});
/** The plan of a ticket, with what it promises and forecasts. */
export type PlanView = z.infer<typeof planSchema>;

/** A request that waits for its turn among the other large ones of a team. */
export const rankedSchema = z.object({
  number: z.number().int(),
  title: z.string(),
  stepId: idSchema,
  version: z.number().int(),
  step: localTextSchema,
  service: localTextSchema,
  requester: personRefSchema,
  /** Since when it is ranked. */
  since: instantSchema,
  /** By when it would have to go ahead so that the plan ends as forecast. */
  neededBy: instantSchema,
  promisedAt: instantSchema,
  forecastAt: instantSchema,
  /** What the form was answered, a line each, in the reader's language. */
  facts: z.array(z.string()),
  /** What the requester was last told of it. */
  lastWord: z.object({ text: z.string(), at: instantSchema, by: z.string() }).nullable(),
});
/** A large request that waits for its place in a team's order. */
export type RankedRequest = z.infer<typeof rankedSchema>;

/** Calls about plans and their steps. */
export const planEndpoints = {
  ranking: endpoint({
    ...paths.plans.ranking,
    summary: 'The large requests of a team that wait for their turn, in their order',
    params: idParams,
    answer: z.object({
      team: z.object({ id: idSchema, name: localTextSchema }),
      requests: z.array(rankedSchema),
      /** Whether the viewer puts them in order. */
      mayRank: z.boolean(),
    }),
  }),
  rank: endpoint({
    ...paths.plans.rank,
    summary: 'Put a large request in its place, say a word to its requester, or let it go ahead',
    params: idParams,
    body: z.object({
      number: z.number().int().positive(),
      stepId: idSchema,
      version: z.number().int(),
      /** Counted from 1; absent: it stays where it is. */
      place: z.number().int().min(1).max(10_000).optional(),
      words: z.string().max(2_000).default(''),
      goesAhead: z.boolean().default(false),
    }),
    answer: z.object({ version: z.number().int() }),
  }),
  move: endpoint({
    ...paths.plans.move,
    summary: "Take, tick, finish, leave out or redo a step of a ticket's plan",
    params: z.object({ number: z.coerce.number().int().positive(), stepId: idSchema }),
    body: z.object({
      name: z.enum(STEP_MOVES),
      version: z.number().int(),
      reason: z.string().max(2_000).default(''),
      ticked: z.array(z.number().int().min(0).max(200)).max(200).default([]),
    }),
    answer: z.object({ version: z.number().int() }),
  }),
  add: endpoint({
    ...paths.plans.add,
    summary: "Add a task to one ticket's plan",
    params: numberParams,
    body: z.object({
      name: textSchema(200),
      legId: idSchema,
      teamId: idSchema,
      /** Working hours that it takes. */
      hours: z.number().min(0).max(1_000).default(0),
      after: z.array(idSchema).max(50).default([]),
    }),
    answer: z.object({ stepId: idSchema }),
  }),
  tellSlip: endpoint({
    ...paths.plans.tellSlip,
    summary: 'Tell the requester that it will be later than promised',
    params: numberParams,
    answer: okSchema,
  }),
  answer: endpoint({
    ...paths.plans.answer,
    summary: 'Answer to a step that asked an outside address; the token names the step',
    isOpen: true,
    params: z.object({ token: z.string().min(20).max(32) }),
    body: z.object({
      fields: z.record(z.string().max(60), z.union([textSchema(2_000), z.number(), z.boolean()])).default({}),
      words: z.string().max(2_000).default(''),
      failed: z.boolean().default(false),
    }),
    answer: okSchema,
  }),
};
