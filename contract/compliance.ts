import * as z from 'zod';
import type { CalendarSpec } from '../core/calendar';
import type { Reassignment } from '../core/compliance';
import type { TargetDefinition } from '../core/targets';
import { calendarSpecSchema } from './calendars';
import { endpoint } from './endpoint';
import { paths } from './paths';
import { idParams, idSchema, instantSchema, okSchema } from './shared';
import { GROUPINGS, STANDINGS } from './complianceNames';
import { definitionSchema } from './targets';

const tallySchema = z.object({
  met: z.number().int(),
  missed: z.number().int(),
  running: z.number().int(),
  /** In percent, of those that are judged. */
  share: z.number().nullable(),
});
/** How many clocks were kept, missed and are still going. */
export type TallyView = z.infer<typeof tallySchema>;

const periodQuery = z.object({
  targetId: idSchema,
  /** Clocks that began in it: from, up to but not with, to. */
  from: z.coerce.number().int(),
  to: z.coerce.number().int(),
});

const complianceSchema = z.object({
  target: z.object({ id: idSchema, name: z.string() }),
  all: tallySchema,
  groups: z.record(z.enum(GROUPINGS), z.array(tallySchema.extend({ key: z.string(), name: z.string() }))),
  /** Where the time went, in working minutes; of the latest `of` of them. */
  went: z.object({
    of: z.number().int(),
    own: z.number(),
    waited: z.number(),
    held: z.record(z.string(), z.number()),
    outside: z.number(),
  }),
});
/** How targets were kept in a period. */
export type Compliance = z.infer<typeof complianceSchema>;

const standingSchema = z.enum(STANDINGS);
const rowSchema = z.object({
  number: z.number().int(),
  title: z.string(),
  requester: z.string(),
  standing: standingSchema,
  elapsed: z.number(),
  limit: z.number().nullable(),
  dueAt: instantSchema.nullable(),
  stoppedAt: instantSchema.nullable(),
});
/** A clock that was counted. */
export type ComplianceRow = z.infer<typeof rowSchema>;

const flipSchema = z.object({
  number: z.number().int(),
  title: z.string(),
  target: z.string(),
  before: standingSchema.nullable(),
  after: standingSchema.nullable(),
  dueBefore: instantSchema.nullable(),
  dueAfter: instantSchema.nullable(),
});
const bothSchema = z.object({ before: tallySchema, after: tallySchema });
const resultSchema = z.object({
  /** By promise, where several are touched. */
  targets: z.array(bothSchema.extend({ key: z.string(), name: z.string() })),
  tickets: z.number().int(),
  clocks: z.number().int(),
  all: bothSchema,
  groups: z.record(z.enum(GROUPINGS), z.array(bothSchema.extend({ key: z.string(), name: z.string() }))),
  changed: z.number().int(),
  flips: z.array(flipSchema),
  ms: z.number(),
});
/** How a period would have gone under another target or calendar. */
export type ReplayResult = z.infer<typeof resultSchema>;

const replaySchema = z.object({
  id: idSchema,
  state: z.enum(['running', 'done', 'stopped', 'failed']),
  done: z.number().int(),
  total: z.number().int(),
  result: resultSchema.nullable(),
});
/** A replay of a period, and how far it is. */
export type Replay = z.infer<typeof replaySchema>;

/** Calls about how targets were kept. */
export const complianceEndpoints = {
  get: endpoint({
    ...paths.compliance.get,
    summary: 'How a promise was kept in a period, as far as I may see its tickets',
    query: periodQuery,
    answer: complianceSchema,
  }),
  tickets: endpoint({
    ...paths.compliance.tickets,
    summary: 'The tickets behind a number',
    query: periodQuery.extend({
      by: z.enum(GROUPINGS).optional(),
      key: z.string().max(60).optional(),
      standing: standingSchema.optional(),
    }),
    answer: z.object({ rows: z.array(rowSchema), isMore: z.boolean() }),
  }),
  replay: endpoint({
    ...paths.compliance.replay,
    summary: 'What would have become of the tickets of a period under other definitions or calendars',
    body: z.object({
      from: instantSchema,
      to: instantSchema,
      targets: z.array(z.object({ id: idSchema, definition: definitionSchema })).max(20),
      calendars: z.record(idSchema, calendarSpecSchema).default({}),
      /** Work that other teams would have had. */
      moves: z
        .array(z.object({ serviceId: idSchema.nullable(), fromTeamId: idSchema, toTeamId: idSchema }))
        .max(20)
        .default([]),
    }),
    answer: z.object({ id: idSchema }),
  }),
  replayOf: endpoint({
    ...paths.compliance.replayOf,
    summary: 'How far it is, and what came out',
    params: idParams,
    answer: replaySchema,
  }),
  stopReplay: endpoint({
    ...paths.compliance.stopReplay,
    summary: 'Stop it',
    params: idParams,
    answer: okSchema,
  }),
};
/** What a replay is asked: a stretch in ms since 1970, and what would have been otherwise in it. */
export type Asked = {
  from: number;
  to: number;
  targets: { id: string; definition: TargetDefinition }[];
  calendars: Record<string, CalendarSpec>;
  moves: Reassignment[];
};
