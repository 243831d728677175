import * as z from 'zod';
import { endpoint } from './endpoint';
import { paths } from './paths';
import { idSchema, instantSchema } from './shared';

/** A clock as it stood at its last event; while it runs, what is left is the working time until `dueAt`. */
export const clockSchema = z.object({
  targetId: idSchema,
  /** Which piece of work it times: 'ticket', or 'approval:<id>'. */
  work: z.string(),
  name: z.string(),
  kind: z.enum(['serviceLevel', 'operationalLevel', 'supplierContract']),
  measures: z.string(),
  state: z.enum(['notStarted', 'running', 'paused', 'met', 'missed', 'cancelled']),
  countedFrom: instantSchema.nullable(),
  elapsed: z.number(),
  limit: z.number().nullable(),
  dueAt: instantSchema.nullable(),
  breachedAt: instantSchema.nullable(),
  stoppedAt: instantSchema.nullable(),
  calendarId: idSchema.nullable(),
  /** The spans in which it was held. */
  held: z.array(z.tuple([instantSchema, instantSchema.nullable()])),
});
/** A target's clock on a ticket; instants in ms since 1970, spans in ms of working time. */
export type Clock = z.infer<typeof clockSchema>;

/** How a clock was computed, span by span; what counted adds up to `elapsed`, with what is to come to the limit. */
export const reckoningShape = {
  name: z.string(),
  /** The version of the promise by which it runs. */
  edition: z.number().int(),
  limit: z.number().nullable(),
  elapsed: z.number(),
  percent: z.number().nullable(),
  dueAt: instantSchema.nullable(),
  plainElapsed: z.number(),
  rows: z.array(
    z.object({
      from: instantSchema,
      to: instantSchema,
      calendar: z.string().nullable(),
      kind: z.enum(['counted', 'pastDue', 'held', 'outsideHours', 'notCounted', 'toCome']),
      worked: z.number(),
      total: z.number(),
    }),
  ),
};

/** Calls about clocks. */
export const clockEndpoints = {
  reckoning: endpoint({
    ...paths.clocks.reckoning,
    summary: 'How a clock was computed, span by span',
    params: z.object({ number: z.coerce.number().int().positive(), targetId: idSchema }),
    query: z.object({ work: z.string().max(60).default('ticket') }),
    answer: z.object(reckoningShape),
  }),
};
