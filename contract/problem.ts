import * as z from 'zod';

/** An error as RFC 9457 describes it, with the fields at fault and, for a stale write, what differs. */
export const problemSchema = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number().int(),
  detail: z.string(),
  requestId: z.string().optional(),
  /** What else helps to mend it, such as who uses a thing or which line is wrong. */
  facts: z.record(z.string(), z.unknown()).optional(),
  fields: z.array(z.object({ field: z.string(), code: z.string(), limit: z.number().optional() })).optional(),
  differences: z
    .array(
      z.object({ field: z.string(), theirs: z.unknown(), yours: z.unknown(), by: z.string().nullable() }),
    )
    .optional(),
});
/** What went wrong, as RFC 9457 has it. */
export type Problem = z.infer<typeof problemSchema>;
