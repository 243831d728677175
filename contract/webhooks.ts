import * as z from 'zod';
import { doorPaths } from './doorPaths';
import { endpoint } from './endpoint';
import { providedSchema } from './rules';
import { idParams, idSchema, instantSchema, okSchema, textSchema } from './shared';

const webhookBodySchema = z.object({
  name: textSchema(100),
  /** Where events are posted, signed as Standard Webhooks are. */
  address: textSchema(500),
  /** Kinds of events; none: all of them. */
  kinds: z.array(z.string().max(40)).max(80),
  /** A condition on the ticket, as of rules. */
  provided: providedSchema,
});
/** What is set for a webhook. */
export type WebhookBody = z.infer<typeof webhookBodySchema>;

const webhookSchema = webhookBodySchema.extend({
  id: idSchema,
  programId: idSchema,
  isOn: z.boolean(),
  /** When a trial was taken; null: it has to be tried first. */
  triedAt: instantSchema.nullable(),
  pausedUntil: instantSchema.nullable(),
  createdAt: instantSchema,
  version: z.number().int(),
  waiting: z.number().int(),
  undelivered: z.number().int(),
});
/** A webhook with what is in line for it. */
export type WebhookView = z.infer<typeof webhookSchema>;

const stateSchema = z.enum(['waiting', 'delivered', 'undelivered']);
const deliverySchema = z.object({
  id: z.number().int(),
  messageId: idSchema,
  entryId: z.number().int(),
  ticketNumber: z.number().int(),
  type: z.string(),
  state: stateSchema,
  tries: z.number().int(),
  at: instantSchema,
  nextAt: instantSchema,
  lastAt: instantSchema.nullable(),
  status: z.number().int().nullable(),
  answer: z.string().nullable(),
});
/** How a message to a webhook fares. */
export type DeliveryView = z.infer<typeof deliverySchema>;
const deliveryParams = z.object({ id: z.coerce.number().int().positive() });

/** Calls about what other programs are told. */
export const webhookEndpoints = {
  list: endpoint({
    ...doorPaths.webhooks.list,
    summary: 'The webhooks of a program',
    params: idParams,
    answer: z.array(webhookSchema),
  }),
  create: endpoint({
    ...doorPaths.webhooks.create,
    summary: 'Make a webhook; its secret is in this answer alone',
    params: idParams,
    body: webhookBodySchema,
    answer: z.object({ id: idSchema, secret: z.string() }),
  }),
  update: endpoint({
    ...doorPaths.webhooks.update,
    summary: 'Change a webhook; another address has to be tried anew',
    params: idParams,
    body: webhookBodySchema.extend({ version: z.number().int() }),
    answer: z.object({ version: z.number().int() }),
  }),
  switch: endpoint({
    ...doorPaths.webhooks.switch,
    summary: 'Switch a webhook on or off',
    params: idParams,
    body: z.object({ version: z.number().int(), isOn: z.boolean() }),
    answer: z.object({ version: z.number().int() }),
  }),
  remove: endpoint({
    ...doorPaths.webhooks.remove,
    summary: 'Do away with a webhook and what is in line for it',
    params: idParams,
    answer: okSchema,
  }),
  try: endpoint({
    ...doorPaths.webhooks.try,
    summary: 'Send an example to a webhook’s address',
    params: idParams,
    answer: z.object({
      isTaken: z.boolean(),
      status: z.number().int().nullable(),
      answer: z.string(),
      sent: z.string(),
    }),
  }),
  deliveries: endpoint({
    ...doorPaths.webhooks.deliveries,
    summary: 'What was told to a webhook, the newest first',
    params: idParams,
    query: z.object({ state: stateSchema.optional(), before: z.coerce.number().int().positive().optional() }),
    answer: z.object({ rows: z.array(deliverySchema), before: z.number().int().nullable() }),
  }),
  delivery: endpoint({
    ...doorPaths.webhooks.delivery,
    summary: 'One message to a webhook, as it was sent',
    params: deliveryParams,
    answer: deliverySchema.extend({ body: z.string() }),
  }),
  sendAgain: endpoint({
    ...doorPaths.webhooks.sendAgain,
    summary: 'Send a message once more',
    params: deliveryParams,
    answer: z.object({ count: z.number().int() }),
  }),
  sendAllAgain: endpoint({
    ...doorPaths.webhooks.sendAllAgain,
    summary: 'Send all that was not delivered once more',
    params: idParams,
    answer: z.object({ count: z.number().int() }),
  }),
};
