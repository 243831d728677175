import * as z from 'zod';
import { doorPaths } from './doorPaths';
import { endpoint } from './endpoint';
import { idParams, textSchema } from './shared';

const countsSchema = z.object({
  tickets: z.number().int(),
  messages: z.number().int(),
  files: z.number().int(),
  conversations: z.number().int(),
  mails: z.number().int(),
  /** Entries of the journal. */
  entries: z.number().int(),
});
/** How much there is of somebody. */
export type ErasureCounts = z.infer<typeof countsSchema>;

/** Calls about what is known of people. */
export const privacyEndpoints = {
  counts: endpoint({
    ...doorPaths.privacy.counts,
    summary: 'How much an erasure of somebody would touch',
    params: idParams,
    answer: countsSchema,
  }),
  erase: endpoint({
    ...doorPaths.privacy.erase,
    summary: 'Erase who has left: words become tombstones, files go',
    params: idParams,
    body: z.object({
      /** Their name as it stands there, typed by whoever erases them. */
      name: z.string().max(200),
      reason: textSchema(500),
    }),
    answer: countsSchema,
  }),
};
