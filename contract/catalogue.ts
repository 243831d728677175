import { TICKET_KINDS } from '../core/tickets';
import * as z from 'zod';
import type { FormDefinition } from '../core/forms';
import { endpoint } from './endpoint';
import { formSchema } from './forms';
import { PLACES } from './names';
import { paths } from './paths';
import { idParams, idSchema, instantSchema, localTextSchema } from './shared';

/** A service as the catalogue lists it. */
export const serviceCardSchema = z.object({
  id: idSchema,
  kind: z.enum(TICKET_KINDS),
  place: z.enum(PLACES),
  categoryId: idSchema.nullable(),
  icon: z.string().nullable(),
  title: localTextSchema,
  description: localTextSchema,
  teamName: localTextSchema,
  /** In euro cents; null where it costs nothing. */
  cost: z.number().int().nullable(),
  needsApproval: z.boolean(),
  /** Whether several teams fulfil it, one after the other. */
  hasPlan: z.boolean(),
  /** Median working time to done over the last 90 days, in minutes and in days of the team's calendar. */
  usually: z.object({ minutes: z.number(), hoursPerDay: z.number() }).nullable(),
});
/** A service as the catalogue lists it. */
export type ServiceCard = z.infer<typeof serviceCardSchema>;

/** A service with its form. */
export const serviceSchema = serviceCardSchema.extend({
  form: formSchema as unknown as z.ZodType<FormDefinition>,
  isConfidential: z.boolean(),
  /** Whether it can be asked for now; else what is said instead. */
  isOn: z.boolean(),
  offWords: localTextSchema.nullable(),
  /** Whether it may be asked for at this hour, and by how many more. */
  standing: z.discriminatedUnion('state', [
    z.object({
      state: z.literal('open'),
      until: instantSchema.nullable(),
      left: z.number().int().nullable(),
    }),
    z.object({ state: z.literal('notYet'), at: instantSchema }),
    z.object({ state: z.literal('over'), at: instantSchema }),
    z.object({ state: z.literal('full') }),
  ]),
  /** What is read when it has been sent; null: the usual words. */
  thanks: localTextSchema.nullable(),
  /** Whether it is for whom it would be asked for. */
  isForYou: z.boolean(),
});
/** A service with its form. */
export type Service = z.infer<typeof serviceSchema>;

/** A part of the catalogue. */
export const categorySchema = z.object({
  id: idSchema,
  parentId: idSchema.nullable(),
  name: localTextSchema,
  position: z.number().int(),
});
/** A part of the catalogue. */
export type Category = z.infer<typeof categorySchema>;

/** For whom one asks; absent: for oneself. */
const forQuery = z.object({ for: idSchema.optional() });

/** Calls about the catalogue. */
export const catalogueEndpoints = {
  list: endpoint({
    ...paths.catalogue.list,
    summary: 'All services I may ask for; to whoever works on them, of everyone',
    query: forQuery.extend({ of: z.literal('everyone').optional() }),
    answer: z.array(serviceCardSchema),
  }),
  get: endpoint({
    ...paths.catalogue.get,
    summary: 'A service with its form',
    params: idParams,
    query: forQuery,
    answer: serviceSchema,
  }),
  search: endpoint({
    ...paths.catalogue.search,
    summary: 'What fits the words typed so far, the best first',
    query: forQuery.extend({ q: z.string().max(200) }),
    answer: z.object({ services: z.array(serviceCardSchema) }),
  }),
  categories: endpoint({
    ...paths.catalogue.categories,
    summary: 'The catalogue by subject',
    answer: z.array(categorySchema),
  }),
};
