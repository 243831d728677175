import * as z from 'zod';
import { IMPACTS, MOVE_FIELDS, MOVE_NAMES, PRIORITIES, URGENCIES } from '../core/tickets';
import { endpoint } from './endpoint';
import { paths } from './paths';
import { idParams, idSchema, localTextSchema, okSchema, textSchema } from './shared';

/** The most tickets that something is done to at once. */
export const MOST_AT_ONCE = 5_000;

/** What is done to each of many tickets. */
export const deedSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('move'),
    name: z.enum(MOVE_NAMES),
    input: z
      .partialRecord(z.enum(MOVE_FIELDS), z.union([z.string().max(20_000), z.number(), z.null()]))
      .default({}),
  }),
  z.object({
    kind: z.literal('facts'),
    facts: z.object({
      title: textSchema(200).optional(),
      impact: z.enum(IMPACTS).optional(),
      urgency: z.enum(URGENCIES).optional(),
      priority: z.enum(PRIORITIES).optional(),
      priorityReason: textSchema(500).optional(),
      progressId: idSchema.nullable().optional(),
      due: z.object({ date: z.iso.date() }).nullable().optional(),
    }),
  }),
  z.object({
    kind: z.literal('words'),
    /** With blanks, which fill themselves for each ticket. */
    text: textSchema(20_000),
    readBy: z.enum(['requester', 'team']),
  }),
  z.object({ kind: z.literal('tie'), noticeId: idSchema }),
]);
/** What is done to many tickets at once. */
export type Deed = z.infer<typeof deedSchema>;

const jobSchema = z.object({
  id: idSchema,
  deed: z.union([
    deedSchema,
    z.object({ kind: z.literal('undo') }),
    /** Done with the notice that they are tied to, in the words that ended it. */
    z.object({ kind: z.literal('finishNotice'), noticeId: idSchema, words: localTextSchema }),
  ]),
  state: z.enum(['running', 'done', 'stopped']),
  total: z.number().int(),
  done: z.number().int(),
  /** Which were not done, and why: the code of a problem. */
  refused: z.array(z.object({ number: z.number().int(), title: z.string(), code: z.string() })),
  refusedCount: z.number().int(),
  mayUndo: z.boolean(),
});
/** How far a job on many tickets is, and what was refused. */
export type BulkJob = z.infer<typeof jobSchema>;

/** Calls about jobs on many tickets. */
export const bulkEndpoints = {
  start: endpoint({
    ...paths.bulk.start,
    summary: 'Do something to many tickets of a worklist, in the background',
    params: idParams,
    body: z.object({
      /** These; absent: all that the list lets through. */
      numbers: z.array(z.number().int().positive()).min(1).max(MOST_AT_ONCE).optional(),
      where: z.string().max(4000).optional(),
      deed: deedSchema,
    }),
    answer: z.object({ id: idSchema, total: z.number().int() }),
  }),
  get: endpoint({
    ...paths.bulk.get,
    summary: 'How far it is, and what was refused and why',
    params: idParams,
    answer: jobSchema,
  }),
  stop: endpoint({
    ...paths.bulk.stop,
    summary: 'Leave out what has not been done yet',
    params: idParams,
    answer: okSchema,
  }),
  undo: endpoint({
    ...paths.bulk.undo,
    summary: 'Take back what was done, where nobody has changed it since',
    params: idParams,
    answer: z.object({ id: idSchema }),
  }),
};
