import * as z from 'zod';
import { SETTING_ENTRY_KINDS, TICKET_ENTRY_KINDS } from '../core/journal';
import { doorPaths } from './doorPaths';
import { endpoint } from './endpoint';
import { idSchema, instantSchema } from './shared';

/** Which entries of the journal are wanted. */
export const recordFilterSchema = z.object({
  /** Who did it, or whom it is about. */
  person: idSchema.optional(),
  kind: z.enum([...TICKET_ENTRY_KINDS, ...SETTING_ENTRY_KINDS]).optional(),
  ticket: z.coerce.number().int().positive().optional(),
  /** Only what is about the organisation and its settings. */
  only: z.enum(['settings', 'access', 'tickets']).optional(),
  from: z.coerce.number().int().optional(),
  to: z.coerce.number().int().optional(),
});
/** Which entries of the journal are wanted. */
export type RecordFilter = z.infer<typeof recordFilterSchema>;

const recordSchema = z.object({
  id: z.number().int(),
  at: instantSchema,
  kind: z.string(),
  via: z.string(),
  /** Null: it came about by itself. */
  actor: z.object({ id: idSchema, name: z.string() }).nullable(),
  keyId: z.string().nullable(),
  ticketNumber: z.number().int().nullable(),
  /** The person or the thing that it is about, by name where there is one. */
  about: z.object({ id: idSchema, name: z.string() }).nullable(),
  /** What a setting is called. */
  name: z.string().nullable(),
  changes: z.record(z.string(), z.object({ from: z.unknown(), to: z.unknown() })),
  data: z.record(z.string(), z.unknown()),
});
/** An entry of the journal, with names. */
export type RecordView = z.infer<typeof recordSchema>;

const sealSchema = z.object({
  id: z.number().int(),
  at: instantSchema,
  firstPosition: z.number().int(),
  lastPosition: z.number().int(),
  entries: z.number().int(),
  hash: z.string(),
  previousHash: z.string(),
});
/** The seal of a stretch of the journal: a hash over its entries and the seal before it. */
export type SealView = z.infer<typeof sealSchema>;

const wasSchema = z.object({
  number: z.number().int(),
  at: instantSchema,
  /** Its fields as they were; ids as names. */
  then: z.record(z.string(), z.unknown()),
  /** What is otherwise now. */
  since: z.record(z.string(), z.object({ then: z.unknown(), now: z.unknown() })),
  /** What had happened by then, the oldest first, and what followed. */
  entries: z.array(
    z.object({
      id: z.number().int(),
      at: instantSchema,
      kind: z.string(),
      actor: z.string().nullable(),
      text: z.string().nullable(),
      isLater: z.boolean(),
    }),
  ),
});
/** A ticket as it was at an instant. */
export type TicketAsItWas = z.infer<typeof wasSchema>;

/** Calls about the record of what was done. */
export const recordEndpoints = {
  list: endpoint({
    ...doorPaths.records.list,
    summary: 'What was done by anyone, the newest first',
    query: recordFilterSchema.extend({ before: z.coerce.number().int().positive().optional() }),
    answer: z.object({ rows: z.array(recordSchema), before: z.number().int().nullable() }),
  }),
  ticket: endpoint({
    ...doorPaths.records.ticket,
    summary: 'A ticket as it was at an instant, and what has changed since',
    params: z.object({ number: z.coerce.number().int().positive() }),
    query: z.object({ at: z.coerce.number().int() }),
    answer: wasSchema,
  }),
  seals: endpoint({
    ...doorPaths.records.seals,
    summary: 'The seals of the record, the newest first',
    answer: z.array(sealSchema),
  }),
  check: endpoint({
    ...doorPaths.records.check,
    isReading: true,
    summary: 'Whether the record is still what was sealed',
    params: z.object({ id: z.coerce.number().int().positive() }),
    answer: z.object({ holds: z.boolean(), isLinked: z.boolean() }),
  }),
};
