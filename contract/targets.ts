import * as z from 'zod';
import type { TargetDefinition, TargetNotice } from '../core/targets';
import { READERS } from '../core/telling';
import { endpoint } from './endpoint';
import { paths } from './paths';
import { effectSchema } from './calendars';
import { reckoningShape } from './clocks';
import { conditionSchema } from './worklists';
import { idParams, idSchema, instantSchema, localTextSchema, textSchema } from './shared';

/** At which share of its limit a target tells whom. */
export const targetNoticeSchema = z.object({
  percent: z.number().positive().max(1000),
  tell: z.array(z.enum(READERS)),
  words: localTextSchema.nullable(),
  handTo: z
    .object({ teamId: idSchema, groupId: idSchema.nullable(), personId: idSchema.nullable() })
    .nullable(),
  raisesPriority: z.boolean(),
}) satisfies z.ZodType<TargetNotice>;

/** A target, and how many clocks go by it. */
export const targetSchema = z.object({
  id: idSchema,
  definition: z.custom<TargetDefinition>(),
  notices: z.array(targetNoticeSchema),
  measures: z.string(),
  teamId: idSchema.nullable(),
  isOn: z.boolean(),
  edition: z.number().int(),
  version: z.number().int(),
  mayEdit: z.boolean(),
  /** How many clocks of it are going now. */
  going: z.number().int(),
});
/** A target, and how many clocks go by it. */
export type Target = z.infer<typeof targetSchema>;

/** What targets measure. */
export const MEASURES = ['firstAnswer', 'takenUp', 'resolution', 'delivery', 'decision'] as const;
const durationSchema = z.string().max(40);

/** A definition as it is sent: its shape; what it says is judged by core. */
export const definitionSchema = z.object({
  id: idSchema,
  name: textSchema(120),
  kind: z.enum(['serviceLevel', 'operationalLevel', 'supplierContract']),
  startWhen: conditionSchema,
  countFrom: z.enum(['start', 'opened']),
  excludeEarlierPauses: z.boolean(),
  pauseWhen: conditionSchema.optional(),
  stopWhen: conditionSchema,
  resetWhen: conditionSchema.optional(),
  cancelWhen: z.union([z.literal('startNoLongerHolds'), z.literal('never'), conditionSchema]),
  onReopen: z.enum(['resume', 'ignore']),
  limits: z.array(z.object({ when: conditionSchema.optional(), duration: durationSchema })).max(40),
  calendars: z.array(z.object({ when: conditionSchema.optional(), calendarId: idSchema })).max(40),
  warnAtPercent: z.array(z.number()).max(20),
});

/** Calls about targets. */
export const targetEndpoints = {
  list: endpoint({
    ...paths.targets.list,
    summary: 'All promises, those that are switched off too',
    answer: z.array(targetSchema),
  }),
  define: endpoint({
    ...paths.targets.define,
    summary: 'Change what a promise promises; version 0 makes a new one',
    params: idParams,
    body: z.object({
      version: z.number().int(),
      definition: definitionSchema,
      measures: z.enum(MEASURES),
      teamId: idSchema.nullable(),
      /** Whether clocks that are going take it over; else it is for what is opened from now on. */
      isForOpen: z.boolean(),
    }),
    answer: z.object({ version: z.number().int(), edition: z.number().int() }),
  }),
  effect: endpoint({
    ...paths.targets.effect,
    isReading: true,
    summary: 'What a change of a promise would do to the clocks that are going',
    params: idParams,
    body: z.object({ definition: definitionSchema }),
    answer: effectSchema,
  }),
  preview: endpoint({
    ...paths.targets.preview,
    isReading: true,
    summary: 'A real ticket under a definition that is not saved',
    body: z.object({ definition: definitionSchema, number: z.number().int().positive() }),
    answer: z.object({
      ...{ title: z.string(), state: z.string(), breachedAt: instantSchema.nullable() },
      ...{ stoppedAt: instantSchema.nullable(), ...reckoningShape },
    }),
  }),
  editions: endpoint({
    ...paths.targets.editions,
    summary: 'Every version of a promise, the latest first',
    params: idParams,
    answer: z.array(
      z.object({
        edition: z.number().int(),
        definition: z.custom<TargetDefinition>(),
        at: instantSchema.nullable(),
        by: z.string().nullable(),
        isForOpen: z.boolean(),
        /** How many clocks that are going run by it. */
        going: z.number().int(),
      }),
    ),
  }),
  update: endpoint({
    ...paths.targets.update,
    summary: 'Switch a promise on or off, or change what it does as time runs out',
    params: idParams,
    body: z.object({
      version: z.number().int(),
      isOn: z.boolean().optional(),
      notices: z.array(targetNoticeSchema).max(10).optional(),
    }),
    answer: z.object({ version: z.number().int() }),
  }),
};
