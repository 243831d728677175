import * as z from 'zod';
import { PROBLEM_LIMITS, PROBLEM_STAGES, PROBLEM_TIES } from '../core/problems';
import { TICKET_STATES } from '../core/tickets';
import { endpoint } from './endpoint';
import { thingRefSchema } from './estate';
import { paths } from './paths';
import {
  idSchema,
  instantSchema,
  localTextSchema,
  numberParams,
  personRefSchema,
  textSchema,
} from './shared';

const countSchema = z.number().int().nonnegative();
const limited = (limit: number) => z.string().max(limit, { error: 'tooLong' });
const versioned = z.object({ version: z.number().int() });

/** A problem as lists show it. */
export const problemCardSchema = z.object({
  number: z.number().int(),
  title: z.string(),
  stage: z.enum(PROBLEM_STAGES),
  teamId: idSchema,
  team: localTextSchema,
  assignee: personRefSchema.nullable(),
  createdAt: instantSchema,
  solvedAt: instantSchema.nullable(),
  backAt: instantSchema.nullable(),
  incidents: countSchema,
  openIncidents: countSchema,
  /** What one does meanwhile. */
  workaround: z.string(),
  articleId: idSchema.nullable(),
});
/** A problem as lists show it. */
export type ProblemCard = z.infer<typeof problemCardSchema>;

/** A problem with all that is known of it. */
export const problemSchema = problemCardSchema.extend({
  version: z.number().int(),
  cause: z.string(),
  causeKindId: idSchema.nullable(),
  things: z.array(thingRefSchema),
  tied: z.array(
    z.object({
      number: z.number().int(),
      title: z.string(),
      state: z.enum(TICKET_STATES),
      at: instantSchema,
      tie: z.enum(PROBLEM_TIES),
      reason: z.string(),
    }),
  ),
  /** Changes that are to mend it. */
  works: z.array(z.object({ number: z.number().int(), title: z.string() })),
  /** Working time that its incidents took until they were done (ms). */
  cost: z.number(),
  /** How many incidents a week, in the eight weeks before it was solved. */
  byWeek: z.array(countSchema),
  /** How often incidents come since it was solved, against before, with the interval at 95 %; null: not solved, or nothing to compare. */
  effect: z.object({ ratio: z.number(), low: z.number(), high: z.number().nullable() }).nullable(),
  mayChange: z.boolean(),
});
/** A problem with all that is known of it. */
export type Problem = z.infer<typeof problemSchema>;

/** What keeps breaking: incidents that may have one cause. */
export const recurringSchema = z.object({
  thing: thingRefSchema.nullable(),
  service: localTextSchema.nullable(),
  serviceId: idSchema.nullable(),
  title: z.string(),
  numbers: z.array(z.number().int()),
  /** Working time that they took until they were done (ms). */
  cost: z.number(),
  problem: z.object({ number: z.number().int(), title: z.string() }).nullable(),
});
/** What keeps breaking. */
export type RecurringGroup = z.infer<typeof recurringSchema>;

const causeKindSchema = z.object({ id: idSchema, name: localTextSchema });
/** A kind of cause, by the organisation's own list. */
export type CauseKind = z.infer<typeof causeKindSchema>;

/** Calls about problems. */
export const problemEndpoints = {
  list: endpoint({
    ...paths.problems.list,
    summary: 'Problems, the open ones first',
    answer: z.array(problemCardSchema),
  }),
  recurring: endpoint({
    ...paths.problems.recurring,
    summary: 'What keeps breaking, what cost most first',
    query: z.object({ days: z.coerce.number().int().min(1).max(366).default(90) }),
    answer: z.array(recurringSchema),
  }),
  create: endpoint({
    ...paths.problems.create,
    summary: 'Open a problem, from incidents or by itself',
    body: z.object({
      title: textSchema(200),
      teamId: idSchema,
      numbers: z.array(z.number().int().positive()).max(200).default([]),
      thingId: idSchema.nullable().default(null),
      cause: limited(PROBLEM_LIMITS.cause).default(''),
    }),
    answer: z.object({ number: z.number().int() }),
  }),
  get: endpoint({
    ...paths.problems.get,
    summary: 'A problem with all that is known of it',
    params: numberParams,
    answer: problemSchema,
  }),
  update: endpoint({
    ...paths.problems.update,
    summary: 'Say how far one is with a problem, and what is known of it',
    params: numberParams,
    body: z.object({
      version: z.number().int(),
      stage: z.enum(PROBLEM_STAGES),
      causeKindId: idSchema.nullable(),
      cause: limited(PROBLEM_LIMITS.cause),
      workaround: limited(PROBLEM_LIMITS.workaround),
    }),
    answer: versioned,
  }),
  tie: endpoint({
    ...paths.problems.tie,
    summary: 'Say what incidents are to a problem: thought to come of it, known to, or not after all',
    params: numberParams,
    body: z.object({
      numbers: z.array(z.number().int().positive()).min(1).max(200),
      tie: z.enum(PROBLEM_TIES),
      reason: limited(PROBLEM_LIMITS.reason).default(''),
    }),
    answer: z.object({ ok: z.literal(true) }),
  }),
  article: endpoint({
    ...paths.problems.article,
    summary: 'Begin an article from the way around a problem',
    params: numberParams,
    answer: z.object({ id: idSchema }),
  }),
  ofTicket: endpoint({
    ...paths.problems.ofTicket,
    summary: 'The problems that a ticket may come of, and known errors whose words fit it',
    params: numberParams,
    answer: z.object({
      tied: z.array(problemCardSchema.extend({ tie: z.enum(PROBLEM_TIES) })),
      fitting: z.array(problemCardSchema),
    }),
  }),
  causeKinds: endpoint({
    ...paths.problems.causeKinds,
    summary: 'The kinds of causes',
    answer: z.object({ kinds: z.array(causeKindSchema), maySet: z.boolean() }),
  }),
  setCauseKinds: endpoint({
    ...paths.problems.setCauseKinds,
    summary: 'Set the kinds of causes',
    body: z.object({ kinds: z.array(causeKindSchema).min(1).max(30) }),
    answer: z.object({ ok: z.literal(true) }),
  }),
};
