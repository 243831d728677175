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
  /** Whether those who ask for the service may begin from it too. */
  isOffered: z.boolean().default(false),
});

const templateSchema = bodySchema.extend({
  id: idSchema,
  mayEdit: z.boolean(),
  /** Whether it is of a service of its own team, to whose askers it can be offered. */
  mayOffer: z.boolean(),
});
/** A ticket to begin from. */
export type TicketTemplate = z.infer<typeof templateSchema>;

const offeredSchema = templateSchema.pick({ id: true, name: true, title: true, answers: true });
/** A template as it is offered for a call. */
export type OfferedTemplate = z.infer<typeof offeredSchema>;

/** Calls about templates. */
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
  offered: endpoint({
    ...paths.templates.offered,
    summary: 'What the team of a service offers to begin from, to those whom it is for',
    params: idParams,
    answer: z.array(offeredSchema),
  }),
  update: endpoint({
    ...paths.templates.update,
    summary: 'Call a template something else, and say to whom it is offered',
    params: idParams,
    body: bodySchema.pick({ name: true, isOffered: true }),
    answer: okSchema,
  }),
  remove: endpoint({
    ...paths.templates.remove,
    summary: 'Do away with a template',
    params: idParams,
    answer: okSchema,
  }),
};
