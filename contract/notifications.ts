import * as z from 'zod';
import { READERS, TOLD_EVENTS } from '../core/telling';
import { endpoint } from './endpoint';
import { paths } from './paths';
import { instantSchema, localTextSchema, okSchema } from './shared';

/** Something that someone is told of. */
export const notificationSchema = z.object({
  id: z.number().int(),
  at: instantSchema,
  event: z.enum(TOLD_EVENTS),
  as: z.enum(READERS),
  /** null: it is of a notice that one follows. */
  number: z.number().int().nullable(),
  title: z.string(),
  actor: z.string().nullable(),
  /** What a promise says of its own, instead of Listo's words. */
  words: localTextSchema.nullable(),
  isRead: z.boolean(),
});
/** Something that someone is told of. */
export type Notification = z.infer<typeof notificationSchema>;

/** Calls about what people are told of. */
export const notificationEndpoints = {
  list: endpoint({
    ...paths.notifications.list,
    summary: 'What I was told, the newest first',
    answer: z.object({ notifications: z.array(notificationSchema), unread: z.number().int() }),
  }),
  read: endpoint({
    ...paths.notifications.read,
    summary: 'Mark what I was told of a ticket (or of all) as read',
    body: z.object({ number: z.number().int().optional() }),
    answer: okSchema,
  }),
};
