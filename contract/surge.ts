import * as z from 'zod';
import { endpoint } from './endpoint';
import { paths } from './paths';
import { idParams, idSchema, instantSchema, localTextSchema, okSchema } from './shared';

const surgeSchema = z.object({
  serviceId: idSchema,
  service: localTextSchema,
  count: z.number().int(),
  /** How many come in this hour of the week, by the weeks before. */
  usual: z.number(),
  /** How likely so many are by chance. */
  chance: z.number(),
  since: instantSchema,
  /** Those of it that stand under no other yet, the oldest first. */
  numbers: z.array(z.number().int()),
});
/** More of one kind than usual, with its tickets. */
export type SurgeRow = z.infer<typeof surgeSchema>;

/** Calls about surges. */
export const surgeEndpoints = {
  list: endpoint({
    ...paths.surge.list,
    summary: 'Where more has come in my teams in the last hour than this hour of the week usually brings',
    answer: z.object({
      surges: z.array(surgeSchema),
      /** How often a quiet hour may raise a false alarm, as the lead of my first team chose. */
      alarmRate: z.number(),
    }),
  }),
  setRate: endpoint({
    ...paths.surge.setRate,
    summary: 'Choose how often a quiet hour may raise a false alarm',
    params: idParams,
    body: z.object({ alarmRate: z.number().min(0.0001).max(0.5) }),
    answer: okSchema,
  }),
};
