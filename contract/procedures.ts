import { TICKET_KINDS } from '../core/tickets';
import * as z from 'zod';
import { endpoint } from './endpoint';
import { paths } from './paths';
import { idParams, idSchema, instantSchema, numberParams, okSchema, personRefSchema } from './shared';

const words = (limit: number) => z.object({ en: z.string().max(limit), pt: z.string().max(limit) });

const bodySchema = z.object({
  teamId: idSchema,
  /** Exactly one of the two says what it is for. */
  serviceId: idSchema.nullable(),
  kind: z.enum(TICKET_KINDS).nullable(),
  name: words(120),
  overview: words(5_000),
  steps: z
    .array(z.object({ id: idSchema, name: words(200), who: words(120), instruction: words(10_000) }))
    .min(1)
    .max(40),
});
/** A procedure as it is written. */
export type ProcedureBody = z.infer<typeof bodySchema>;

const procedureSchema = bodySchema.extend({ id: idSchema, version: z.number().int(), mayEdit: z.boolean() });
/** A procedure as it is kept. */
export type Procedure = z.infer<typeof procedureSchema>;

/** Calls about procedures. */
export const procedureEndpoints = {
  list: endpoint({
    ...paths.procedures.list,
    summary: 'How work is done, for those who do it',
    answer: z.array(procedureSchema),
  }),
  create: endpoint({
    ...paths.procedures.create,
    summary: 'Write down how a kind of work or a service is done',
    body: bodySchema,
    answer: z.object({ id: idSchema }),
  }),
  update: endpoint({
    ...paths.procedures.update,
    summary: 'Change a procedure',
    params: idParams,
    body: bodySchema.extend({ version: z.number().int() }),
    answer: z.object({ version: z.number().int() }),
  }),
  remove: endpoint({
    ...paths.procedures.remove,
    summary: 'Do away with a procedure; what was ticked off stays in the journal',
    params: idParams,
    answer: okSchema,
  }),
  forTicket: endpoint({
    ...paths.procedures.forTicket,
    summary: 'How a ticket is done, and how far it is',
    params: numberParams,
    answer: z.object({
      procedure: procedureSchema.nullable(),
      ticks: z.array(z.object({ stepId: idSchema, by: personRefSchema.nullable(), at: instantSchema })),
    }),
  }),
  tick: endpoint({
    ...paths.procedures.tick,
    summary: 'Tick off a step of how a ticket is done, or take that back',
    params: numberParams.extend({ id: idSchema }),
    body: z.object({ isDone: z.boolean() }),
    answer: okSchema,
  }),
};
