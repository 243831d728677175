import * as z from 'zod';
import { endpoint } from './endpoint';
import { paths } from './paths';
import { idParams, idSchema, instantSchema, okSchema, personRefSchema } from './shared';

const absenceSchema = z.object({
  id: idSchema,
  fromAt: instantSchema,
  toAt: instantSchema,
  delegate: personRefSchema.nullable(),
});
/** A stretch in which someone is away, and who decides meanwhile. */
export type Absence = z.infer<typeof absenceSchema>;

/** Calls about absences. */
export const absenceEndpoints = {
  mine: endpoint({
    ...paths.absences.mine,
    summary: 'When I am away, as far as it is not over',
    answer: z.array(absenceSchema),
  }),
  add: endpoint({
    ...paths.absences.add,
    summary: 'Say when I am away, and who decides in my place meanwhile',
    body: z.object({ fromAt: instantSchema, toAt: instantSchema, delegateId: idSchema.nullable() }),
    answer: z.object({ id: idSchema }),
  }),
  remove: endpoint({
    ...paths.absences.remove,
    summary: 'Take an absence of mine back',
    params: idParams,
    answer: okSchema,
  }),
};
