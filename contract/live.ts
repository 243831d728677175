import * as z from 'zod';

/** What the live stream sends: an entry of the journal in short. The page then asks for what it shows. */
export const liveEventSchema = z.object({
  position: z.number().int(),
  type: z.string(),
  number: z.number().int().nullable(),
  actorId: z.string().nullable(),
  actor: z.string().nullable(),
  at: z.number().int(),
});
/** That something happened, in short; pages ask for the rest. */
export type LiveEvent = z.infer<typeof liveEventSchema>;

/** Someone is writing on a ticket; said again as long as they do. */
export const writingEventSchema = z.object({
  number: z.number().int(),
  personId: z.string(),
  name: z.string(),
  readBy: z.enum(['requester', 'team']),
});
/** That someone is writing on a ticket. */
export type WritingEvent = z.infer<typeof writingEventSchema>;
