import * as z from 'zod';
import type { Condition } from '../core/conditions';
import {
  BOARD_FIELDS,
  CARD_FACTS,
  COLUMNS,
  GROUPINGS,
  MARKS,
  MOST_WEIGHT,
  ORDERS,
  VIEWS,
  type OrderReason,
} from '../core/worklist';
import { PRIORITIES } from '../core/tickets';
import { endpoint } from './endpoint';
import { paths } from './paths';
import {
  idParams,
  idSchema,
  instantSchema,
  localTextSchema,
  okSchema,
  personRefSchema,
  textSchema,
} from './shared';
import { rowSchema } from './tickets';

const scalar = z.union([z.string().max(500), z.number(), z.boolean(), z.null()]);
const listed = z.array(z.union([z.string().max(500), z.number(), z.null()])).max(200);
const field = z.string().max(60);

/** A condition as core/conditions reads it; which fields it may ask for is judged by core/worklist. */
export const conditionSchema: z.ZodType<Condition> = z.lazy(() =>
  z.union([
    z.strictObject({ all: z.array(conditionSchema).max(60) }),
    z.strictObject({ any: z.array(conditionSchema).max(60) }),
    z.strictObject({ not: conditionSchema }),
    z.strictObject({ field, op: z.enum(['is', 'isNot']), value: scalar }),
    z.strictObject({ field, op: z.enum(['in', 'notIn']), value: listed }),
    z.strictObject({
      field,
      op: z.enum(['lt', 'lte', 'gt', 'gte']),
      value: z.union([z.number(), z.string().max(500)]),
    }),
    z.strictObject({ field, op: z.literal('contains'), value: z.string().max(500) }),
    z.strictObject({ field, op: z.enum(['empty', 'notEmpty']) }),
  ]),
);

/** What a list holds and how it is seen. */
export const worklistDefinitionSchema = z.object({
  condition: conditionSchema,
  order: z.enum(ORDERS),
  groupBy: z.enum(GROUPINGS).nullable(),
  columns: z.array(z.enum(COLUMNS)).max(8),
  /** What a column means here. */
  meanings: z.partialRecord(z.enum(COLUMNS), z.string().max(200)),
  seenAs: z.enum(VIEWS),
  marks: z
    .array(z.object({ condition: conditionSchema, look: z.enum(MARKS), means: textSchema(100) }))
    .max(8),
  board: z.object({
    by: z.enum(BOARD_FIELDS),
    facts: z.array(z.enum(CARD_FACTS)),
    limits: z.record(z.string().max(60), z.number().int().min(1).max(999)),
  }),
});

const worklistSchema = z.object({
  id: idSchema,
  name: z.string(),
  owner: personRefSchema.nullable(),
  /** Whether its owner works here no longer; whoever leads the team may take it over. */
  isOrphaned: z.boolean(),
  teamId: idSchema.nullable(),
  definition: worklistDefinitionSchema,
  version: z.number().int(),
  mayEdit: z.boolean(),
  problems: z.array(z.object({ code: z.string(), field: z.string() })),
});
/** A list that someone made. */
export type OwnWorklist = z.infer<typeof worklistSchema>;

/** What may stand before what falls due sooner, in hours. */
export const orderWeightsSchema = z.object({
  priority: z.record(z.enum(PRIORITIES), z.number().min(0).max(MOST_WEIGHT)),
  waiting: z.number().min(0).max(MOST_WEIGHT),
  goesFirst: z.number().min(0).max(MOST_WEIGHT),
});

const countSchema = z.object({ count: z.number().int(), isMore: z.boolean() });
const reasonSchema = z.custom<OrderReason>();

/** A row with its place in the list, which a later call begins after, and why it stands there. */
export const listRowSchema = rowSchema.extend({
  at: z.string(),
  reasons: z.array(reasonSchema),
  /** What columns may show beside: how the requester is reached, and how much work it is, in minutes. */
  more: z.object({
    mail: z.string(),
    phone: z.string(),
    department: z.string(),
    estimate: z.number().int().nullable(),
    spent: z.number().int(),
  }),
  /** The place of the mark that it carries, among the list's. */
  mark: z.number().int().nullable(),
});
/** A row of a list. */
export type ListRow = z.infer<typeof listRowSchema>;

/** Narrows a list, orders and groups it otherwise than its definition says. */
const seenSchema = z.object({
  /** A condition as JSON, beside the list's own. */
  where: z.string().max(4000).optional(),
  order: z.enum(ORDERS).optional(),
  groupBy: z.enum([...GROUPINGS, 'none']).optional(),
});

const saveSchema = z.object({
  name: textSchema(120),
  teamId: idSchema.nullable(),
  definition: worklistDefinitionSchema,
});

/** Calls about worklists. */
export const worklistEndpoints = {
  list: endpoint({
    ...paths.worklists.list,
    summary: 'My own worklists and those that are shared with my teams',
    answer: z.array(worklistSchema),
  }),
  create: endpoint({
    ...paths.worklists.create,
    summary: 'Keep a selection of work as a worklist',
    body: saveSchema,
    answer: z.object({ id: idSchema, version: z.number().int() }),
  }),
  update: endpoint({
    ...paths.worklists.update,
    summary: 'Change a worklist of my own, or one shared with a team that I lead',
    params: idParams,
    body: saveSchema.extend({ version: z.number().int() }),
    answer: z.object({ version: z.number().int() }),
  }),
  remove: endpoint({
    ...paths.worklists.remove,
    summary: 'Do away with a worklist; the work in it stays',
    params: idParams,
    answer: okSchema,
  }),
  page: endpoint({
    ...paths.worklists.page,
    summary: 'A page of a worklist, given or own, in its order',
    params: idParams,
    query: seenSchema.extend({
      after: z.string().max(300).optional(),
      limit: z.coerce.number().int().min(1).max(200).default(60),
    }),
    answer: z.object({ rows: z.array(listRowSchema), next: z.string().nullable(), total: countSchema }),
  }),
  rows: endpoint({
    ...paths.worklists.rows,
    summary: 'The rows of some tickets in a worklist, as far as they stand in it',
    params: idParams,
    query: seenSchema.extend({ numbers: z.string().regex(/^\d+(,\d+){0,99}$/) }),
    answer: z.array(listRowSchema),
  }),
  shares: endpoint({
    ...paths.worklists.shares,
    summary: 'How many pieces of work of a list have which value, by field',
    params: idParams,
    query: z.object({ where: z.string().max(4000).optional(), by: z.string().max(200) }),
    answer: z.object({
      fields: z.array(
        z.object({
          field: z.string(),
          values: z.array(
            z.object({
              value: z.string().nullable(),
              name: localTextSchema.nullable(),
              count: z.number().int(),
            }),
          ),
        }),
      ),
      /** Whether only the first of very many were counted. */
      isPart: z.boolean(),
    }),
  }),
  load: endpoint({
    ...paths.worklists.load,
    summary: 'What each person of the list carries: work by state, and by when it falls due',
    params: idParams,
    query: z.object({ where: z.string().max(4000).optional() }),
    answer: z.object({
      days: z.array(instantSchema),
      people: z.array(
        z.object({
          person: personRefSchema.nullable(),
          capacity: z.number().nullable(),
          isAway: z.boolean(),
          states: z.record(z.string(), z.number().int()),
          dues: z.array(z.number().int()),
          past: z.number().int(),
          later: z.number().int(),
        }),
      ),
    }),
  }),
  tryOrder: endpoint({
    ...paths.worklists.tryOrder,
    isReading: true,
    summary: 'What a team would have next up under other weights, beside what it has now',
    params: idParams,
    body: z.object({ weights: orderWeightsSchema }),
    answer: z.object({
      rows: z.array(
        z.object({
          number: z.number().int(),
          title: z.string(),
          priority: z.enum(PRIORITIES),
          now: z.number().int(),
          then: z.number().int(),
        }),
      ),
      moved: z.number().int(),
    }),
  }),
  setOrder: endpoint({
    ...paths.worklists.setOrder,
    summary: 'Set what may stand before what falls due sooner in a team',
    params: idParams,
    body: z.object({ weights: orderWeightsSchema, version: z.number().int() }),
    answer: z.object({ version: z.number().int() }),
  }),
};
