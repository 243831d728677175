import * as z from 'zod';
import { doorPaths } from './doorPaths';
import { endpoint } from './endpoint';
import { instantSchema } from './shared';

const callSchema = z.object({
  id: z.number().int(),
  at: instantSchema,
  kind: z.enum(['step', 'webhook', 'signOn']),
  ref: z.string(),
  address: z.string(),
  /** Of HTTP; null: nothing came back. */
  status: z.number().int().nullable(),
  /** How long it took. */
  ms: z.number().int(),
  bytes: z.number().int(),
  error: z.string().nullable(),
});
/** A call to an outside address. */
export type OutgoingCall = z.infer<typeof callSchema>;

/** Calls about the calls to outside addresses. */
export const callEndpoints = {
  list: endpoint({
    ...doorPaths.calls.list,
    summary: 'The last calls to outside addresses',
    query: z.object({
      before: z.coerce.number().int().positive().optional(),
      only: z.enum(['failed']).optional(),
    }),
    answer: z.object({ rows: z.array(callSchema), before: z.number().int().nullable() }),
  }),
};
