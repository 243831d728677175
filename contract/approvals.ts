import * as z from 'zod';
import { endpoint } from './endpoint';
import { answeredSchema } from './forms';
import { paths } from './paths';
import {
  idParams,
  idSchema,
  instantSchema,
  localTextSchema,
  okSchema,
  personRefSchema,
  textSchema,
} from './shared';

const askSchema = z.object({
  id: idSchema,
  number: z.number().int(),
  title: z.string(),
  service: localTextSchema,
  requester: personRefSchema,
  voter: personRefSchema,
  reason: z.string(),
  cost: z.number().int().nullable(),
  since: instantSchema,
  /** By when a promise wants it decided. */
  dueAt: instantSchema.nullable(),
  /** Since when the asker's answer to a question of mine is awaited. */
  questionAt: instantSchema.nullable(),
  /** The questions whose answers have changed since it was first asked. */
  changed: z.array(localTextSchema),
  answers: z.array(answeredSchema),
});
/** Something that waits for someone's yes or no, with the facts to decide by. */
export type Ask = z.infer<typeof askSchema>;

/** Calls about approvals. */
export const approvalEndpoints = {
  mine: endpoint({
    ...paths.approvals.mine,
    summary: 'What waits for my decision',
    answer: z.array(askSchema),
  }),
  decide: endpoint({
    ...paths.approvals.decide,
    isForPeople: true,
    summary: 'Say yes, or no with a reason',
    params: idParams,
    body: z
      .object({ decision: z.enum(['approve', 'decline']), words: z.string().max(2000).default('') })
      .refine(({ decision, words }) => decision === 'approve' || words.trim() !== '', {
        path: ['words'],
        error: 'missing',
      }),
    answer: okSchema,
  }),
  askBack: endpoint({
    ...paths.approvals.askBack,
    isForPeople: true,
    summary: 'Ask the requester something before deciding',
    params: idParams,
    body: z.object({ words: textSchema(2000) }),
    answer: z.object({ messageId: idSchema }),
  }),
};
