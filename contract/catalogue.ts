import * as z from 'zod';
import { FIELD_KINDS, KNOWN_FACTS, type FormDefinition } from '../core/forms';
import type { Condition } from '../core/conditions';
import { endpoint } from './endpoint';
import { PLACES } from './names';
import { paths } from './paths';
import { idParams, idSchema, localTextSchema } from './shared';

export const formFieldSchema = z.object({
  name: z.string(),
  kind: z.enum(FIELD_KINDS),
  label: localTextSchema,
  help: localTextSchema.optional(),
  needed: z.boolean(),
  shownWhen: z.custom<Condition>().optional(),
  filledFrom: z.enum(KNOWN_FACTS).optional(),
  choices: z.array(z.object({ value: z.string(), label: localTextSchema })).optional(),
  most: z.number().optional(),
  least: z.number().optional(),
});

export const serviceCardSchema = z.object({
  id: idSchema,
  kind: z.enum(['incident', 'request']),
  place: z.enum(PLACES),
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
export type ServiceCard = z.infer<typeof serviceCardSchema>;

export const serviceSchema = serviceCardSchema.extend({
  form: z.object({ fields: z.array(formFieldSchema) }) as unknown as z.ZodType<FormDefinition>,
  isConfidential: z.boolean(),
});
export type Service = z.infer<typeof serviceSchema>;

export const catalogueEndpoints = {
  list: endpoint({
    ...paths.catalogue.list,
    summary: 'All services I may ask for',
    answer: z.array(serviceCardSchema),
  }),
  get: endpoint({
    ...paths.catalogue.get,
    summary: 'A service with its form',
    params: idParams,
    answer: serviceSchema,
  }),
  search: endpoint({
    ...paths.catalogue.search,
    summary: 'What fits the words typed so far, the best first',
    query: z.object({ q: z.string().max(200) }),
    answer: z.object({ services: z.array(serviceCardSchema) }),
  }),
};
