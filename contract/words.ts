import * as z from 'zod';
import { TICKET_STATES } from '../core/tickets';
import { endpoint } from './endpoint';
import { paths } from './paths';
import { idSchema, localTextSchema, numberParams, okSchema } from './shared';

const readBySchema = z.enum(['requester', 'team']);

/** Someone who can be called in words: only those who may read them. */
const mentionableSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('person'), id: idSchema, name: z.string(), title: z.string() }),
  z.object({ kind: z.literal('team'), id: idSchema, name: localTextSchema }),
  z.object({ kind: z.literal('everyone'), count: z.number().int() }),
]);
/** Someone who can be called in by name. */
export type Mentionable = z.infer<typeof mentionableSchema>;

/** What a number in words stands for. */
const namedSchema = z.object({ number: z.number().int(), title: z.string(), state: z.enum(TICKET_STATES) });
/** What an id in a text is called. */
export type Named = z.infer<typeof namedSchema>;

/** Calls about what is named in texts. */
export const wordsEndpoints = {
  mentionable: endpoint({
    ...paths.words.mentionable,
    summary: 'Who can be called in words on a ticket, by a few letters',
    params: numberParams,
    query: z.object({ q: z.string().max(80).default(''), readBy: readBySchema }),
    answer: z.array(mentionableSchema),
  }),
  named: endpoint({
    ...paths.words.named,
    summary: 'Titles and states of tickets by their numbers; those that one may not see are left out',
    query: z.object({
      numbers: z
        .string()
        .regex(/^\d{1,15}(,\d{1,15}){0,49}$/)
        .transform((list) => list.split(',').map(Number)),
    }),
    answer: z.array(namedSchema),
  }),
  check: endpoint({
    ...paths.words.check,
    summary: 'Tick off a line of a checklist in words that were sent, or take that back',
    params: numberParams.extend({ id: idSchema }),
    /** `text` is the line as it was seen: where another stands there now, nothing is ticked. */
    body: z.object({
      index: z.number().int().min(0).max(500),
      text: z.string().max(20_000),
      isDone: z.boolean(),
    }),
    answer: okSchema,
  }),
  writing: endpoint({
    ...paths.words.writing,
    isForPeople: true,
    summary: 'Let the others on a ticket see that one is writing',
    params: numberParams,
    body: z.object({ readBy: readBySchema }),
    answer: okSchema,
  }),
};
