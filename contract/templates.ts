import * as z from 'zod';
import type { Answers } from '../core/forms';
import { endpoint } from './endpoint';
import { paths } from './paths';
import { idParams, idSchema, okSchema, textSchema } from './shared';

const answersSchema = z.record(z.string().max(60), z.unknown()) as unknown as z.ZodType<Answers>;

const bodySchema = z.object({
  teamId: idSchema,
  name: textSchema(120),
  serviceId: idSchema,
  title: textSchema(200),
  answers: answersSchema.default({}),
});

const templateSchema = bodySchema.extend({ id: idSchema, mayEdit: z.boolean() });
export type TicketTemplate = z.infer<typeof templateSchema>;

export const templateEndpoints = {
  list: endpoint({
    ...paths.templates.list,
    summary: 'Tickets prepared for what comes again and again, of my teams',
    answer: z.array(templateSchema),
  }),
  create: endpoint({
    ...paths.templates.create,
    summary: 'Keep a ticket as a template for the team',
    body: bodySchema,
    answer: z.object({ id: idSchema }),
  }),
  remove: endpoint({
    ...paths.templates.remove,
    summary: 'Do away with a template',
    params: idParams,
    answer: okSchema,
  }),
};
