import * as z from 'zod';
import type { TargetDefinition, TargetNotice } from '../core/targets';
import { READERS } from '../core/telling';
import { endpoint } from './endpoint';
import { paths } from './paths';
import { idParams, idSchema, localTextSchema } from './shared';

export const targetNoticeSchema = z.object({
  percent: z.number().positive().max(1000),
  tell: z.array(z.enum(READERS)),
  words: localTextSchema.nullable(),
  handTo: z
    .object({ teamId: idSchema, groupId: idSchema.nullable(), personId: idSchema.nullable() })
    .nullable(),
  raisesPriority: z.boolean(),
}) satisfies z.ZodType<TargetNotice>;

export const targetSchema = z.object({
  id: idSchema,
  definition: z.custom<TargetDefinition>(),
  notices: z.array(targetNoticeSchema),
  measures: z.string(),
  teamId: idSchema.nullable(),
  isOn: z.boolean(),
  version: z.number().int(),
  mayEdit: z.boolean(),
  /** How many clocks of it are going now. */
  going: z.number().int(),
});
export type Target = z.infer<typeof targetSchema>;

export const targetEndpoints = {
  list: endpoint({
    ...paths.targets.list,
    summary: 'All promises, those that are switched off too',
    answer: z.array(targetSchema),
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
