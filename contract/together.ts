import * as z from 'zod';
import { TICKET_STATES } from '../core/tickets';
import { endpoint } from './endpoint';
import { paths } from './paths';
import { idSchema, numberParams, okSchema } from './shared';

/** How a ticket stands under another: the same matter (it goes on there alone), or one of many with that cause. */
export const UNDER_AS = ['same', 'cause'] as const;
/** How a ticket goes with another one: as the same matter, or by one cause. */
export type UnderAs = (typeof UNDER_AS)[number];

const likeSchema = z.object({
  number: z.number().int(),
  title: z.string(),
  state: z.enum(TICKET_STATES),
  requester: z.string(),
  /** How it was solved, where it was. */
  solution: z.string().nullable(),
  score: z.number(),
  sharedWords: z.array(z.string()),
  samePlace: z.boolean(),
  sameService: z.boolean(),
});
/** A ticket that is like another one, and how much. */
export type Like = z.infer<typeof likeSchema>;

const refSchema = z.object({ number: z.number().int(), title: z.string(), state: z.enum(TICKET_STATES) });

/** Calls about tickets that go together. */
export const togetherEndpoints = {
  similar: endpoint({
    ...paths.together.similar,
    summary: 'Tickets like this one, open and solved, the most alike first, with why',
    params: numberParams,
    answer: z.array(likeSchema),
  }),
  reported: endpoint({
    ...paths.together.reported,
    summary: 'Open tickets like what is being written, before it is sent: is it reported already?',
    query: z.object({
      title: z.string().max(200),
      serviceId: idSchema,
      place: z.string().max(255).default(''),
    }),
    answer: z.array(likeSchema),
  }),
  get: endpoint({
    ...paths.together.get,
    summary: 'What stands together with a ticket: what it is under, and what is under it',
    params: numberParams,
    answer: z.object({
      under: refSchema.extend({ as: z.enum(UNDER_AS) }).nullable(),
      below: z.array(refSchema.extend({ as: z.enum(UNDER_AS) })),
    }),
  }),
  put: endpoint({
    ...paths.together.put,
    summary: 'Put a ticket under another: as the same matter, or as one of many with that cause',
    params: numberParams,
    body: z.object({ under: z.number().int().positive(), as: z.enum(UNDER_AS) }),
    answer: okSchema,
  }),
  putAll: endpoint({
    ...paths.together.putAll,
    summary: 'Put many tickets under one, as having it for their cause; says which were not',
    params: numberParams,
    body: z.object({ numbers: z.array(z.number().int().positive()).min(1).max(500) }),
    answer: z.object({ put: z.number().int(), refused: z.array(z.number().int()) }),
  }),
  takeApart: endpoint({
    ...paths.together.takeApart,
    summary: 'Take a ticket out from under the other again',
    params: numberParams,
    answer: okSchema,
  }),
};
