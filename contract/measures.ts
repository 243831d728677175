import * as z from 'zod';
import { FACT_KINDS, SHOWS } from '../core/measures';
import { endpoint } from './endpoint';
import { paths } from './paths';
import { idParams, idSchema, instantSchema, okSchema, personRefSchema } from './shared';
import { conditionSchema } from './worklists';

const countSchema = z.number().int().nonnegative();
const field = z.string().max(60);
const scalarSchema = z.union([z.string().max(500), z.number(), z.boolean(), z.null()]);
const unitSchema = z.enum(['hour', 'day', 'week', 'month', 'quarter', 'year']);

/** The last so many hours, days, weeks … */
export const stretchSchema = z.strictObject({ last: z.number().int().min(1).max(1_000), unit: unitSchema });

const whatSchema = z.union([
  z.literal('count'),
  z.strictObject({ sum: field }),
  z.strictObject({ mean: field }),
  z.strictObject({ median: field }),
  z.strictObject({ p90: field }),
  z.strictObject({ share: conditionSchema }),
]);

/** A chart; what it may ask for is judged by core/measures. */
export const chartSchema = z.strictObject({
  id: idSchema,
  title: z.string().max(200, { error: 'tooLong' }),
  of: z.enum(FACT_KINDS),
  what: whatSchema,
  at: field,
  where: conditionSchema,
  show: z.enum(SHOWS),
  by: field.nullable(),
  every: unitSchema.nullable(),
  stretch: stretchSchema.nullable(),
  isCompared: z.boolean(),
  aim: z.number().nullable(),
  width: z.union([z.literal(3), z.literal(4), z.literal(6), z.literal(8), z.literal(12)]),
});

/** What is chosen in the charts of a board, by the chart. */
const chosenSchema = z.record(idSchema, z.array(scalarSchema).max(50));

/** A chart within its board: the others narrow it by what is chosen in them. */
const askedSchema = z.object({
  chart: chartSchema,
  stretch: stretchSchema,
  /** The other charts of the board as far as they narrow. */
  beside: z.array(chartSchema.pick({ id: true, by: true, of: true })).max(40),
  chosen: chosenSchema,
});
/** A chart within its board. */
export type AskedChart = z.infer<typeof askedSchema>;

const figureSchema = z.number().nullable();
const groupSchema = z.object({
  key: scalarSchema,
  /** What we call it; null: it has its words in the catalogue, or none. */
  name: z.string().nullable(),
  total: figureSchema,
  /** In the stretch before; null also where nothing is compared. */
  before: figureSchema,
  count: countSchema,
  /** By bucket. */
  values: z.array(figureSchema),
  counts: z.array(countSchema),
  /** Least, lower quartile, median, upper quartile, most. */
  spread: z.array(z.number()).length(5).nullable(),
});
/** A part of a chart. */
export type ChartGroup = z.infer<typeof groupSchema>;

const courseSchema = z.object({
  /** By bucket: how many came, how many ended, how many were open at its end. */
  flow: z.array(z.object({ opened: countSchema, ended: countSchema, open: countSchema })),
  /** How many are open for so long: from each edge (ms) to the next. */
  ageing: z.array(z.object({ from: z.number(), count: countSchema })),
  survival: z
    .object({
      median: figureSchema,
      /** The median of those that are done alone. */
      usual: figureSchema,
      open: countSchema,
      /** The share (0 to 1) still open after so long (ms). */
      shares: z.array(z.object({ after: z.number(), share: z.number() })),
    })
    .nullable(),
  expected: z.array(
    z.object({
      at: instantSchema,
      mean: z.number(),
      low: z.number(),
      high: z.number(),
      /** How many people it takes at once; null: that is not reckoned for what is counted. */
      agents: countSchema.nullable(),
    }),
  ),
});

/** A chart's figures. */
export const chartAnswerSchema = z.object({
  /** When they were current. */
  at: instantSchema,
  from: instantSchema,
  to: instantSchema,
  zone: z.string(),
  buckets: z.array(instantSchema),
  total: figureSchema,
  before: figureSchema,
  count: countSchema,
  groups: z.array(groupSchema),
  /** Parts that are not listed, the smallest ones, and those of people whose figures are not the reader’s. */
  more: countSchema,
  course: courseSchema.nullable(),
  /** Whether the facts of older tickets are still being gathered. */
  isGathering: z.boolean(),
});
/** A chart's figures. */
export type ChartAnswer = z.infer<typeof chartAnswerSchema>;

const behindSchema = z.object({
  number: z.number().int().nullable(),
  title: z.string(),
  person: z.string(),
  at: instantSchema,
  /** What it holds in the field that is reckoned with. */
  value: figureSchema,
});
/** What is counted by a figure. */
export type BehindRow = z.infer<typeof behindSchema>;

const boardCardSchema = z.object({
  id: idSchema,
  /** Empty: a given one, whose name is in the catalogue. */
  name: z.string(),
  isGiven: z.boolean(),
  owner: personRefSchema.nullable(),
  isShared: z.boolean(),
  charts: countSchema,
});
/** A board as lists show it. */
export type BoardCard = z.infer<typeof boardCardSchema>;

const boardBodySchema = z.object({
  name: z.string().min(1, { error: 'missing' }).max(200, { error: 'tooLong' }),
  teamIds: z.array(idSchema).max(100),
  isForAll: z.boolean(),
  stretch: stretchSchema,
  charts: z.array(chartSchema).max(40, { error: 'tooLong' }),
});

const boardSchema = boardBodySchema.extend({
  id: idSchema,
  name: z.string(),
  isGiven: z.boolean(),
  owner: personRefSchema.nullable(),
  version: z.number().int(),
  mayChange: z.boolean(),
  /** Charts that cannot be drawn any more, and why. */
  problems: z.record(idSchema, z.array(z.object({ code: z.string(), field: z.string() }))),
});
/** Charts that are looked at together. */
export type Board = z.infer<typeof boardSchema>;

/** Calls about figures that are put together by their readers. */
export const measureEndpoints = {
  chart: endpoint({
    ...paths.measures.chart,
    isReading: true,
    summary: 'The figures of a chart, narrowed by what is chosen in the others of its board',
    body: askedSchema,
    answer: chartAnswerSchema,
  }),
  behind: endpoint({
    ...paths.measures.behind,
    isReading: true,
    summary: 'What a figure of a chart counts',
    body: askedSchema.extend({
      /** Of which part and of which bucket; absent: of all. */
      key: scalarSchema.optional(),
      bucket: instantSchema.optional(),
    }),
    answer: z.object({ rows: z.array(behindSchema), isMore: z.boolean() }),
  }),
  boards: endpoint({
    ...paths.measures.boards,
    summary: 'The boards that I may look at',
    answer: z.array(boardCardSchema),
  }),
  createBoard: endpoint({
    ...paths.measures.createBoard,
    summary: 'Keep a board',
    body: boardBodySchema,
    answer: z.object({ id: idSchema }),
  }),
  board: endpoint({
    ...paths.measures.board,
    summary: 'A board with its charts',
    params: idParams,
    answer: boardSchema,
  }),
  updateBoard: endpoint({
    ...paths.measures.updateBoard,
    summary: 'Change a board',
    params: idParams,
    body: boardBodySchema.extend({ version: z.number().int() }),
    answer: z.object({ version: z.number().int() }),
  }),
  removeBoard: endpoint({
    ...paths.measures.removeBoard,
    summary: 'Remove a board',
    params: idParams,
    answer: okSchema,
  }),
  gatherAnew: endpoint({
    ...paths.measures.gatherAnew,
    summary: 'Gather anew from the journal what figures count',
    answer: okSchema,
  }),
};
