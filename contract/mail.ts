import * as z from 'zod';
import { MAIL_TEMPLATES } from '../core/mail';
import { endpoint } from './endpoint';
import { paths } from './paths';
import { idParams, idSchema, instantSchema, okSchema, textSchema } from './shared';

const textsSchema = z.object({ subject: textSchema(200), text: textSchema(10_000) });
const bothSchema = z.object({ en: textsSchema, pt: textsSchema });

const inSchema = z.object({
  id: idSchema,
  at: instantSchema,
  from: z.string(),
  to: z.string(),
  subject: z.string(),
  size: z.number(),
  /** What became of it. */
  outcome: z.string(),
  detail: z.string().nullable(),
  ticketNumber: z.number().int().nullable(),
});
const outSchema = z.object({
  id: idSchema,
  at: instantSchema,
  template: z.enum(MAIL_TEMPLATES),
  to: z.string(),
  subject: z.string(),
  state: z.enum(['waiting', 'sent', 'failed']),
  tries: z.number().int(),
  nextAt: instantSchema,
  sentAt: instantSchema.nullable(),
  error: z.string().nullable(),
  ticketNumber: z.number().int().nullable(),
});
/** A mail that came in, and what became of it. */
export type MailCame = z.infer<typeof inSchema>;
/** A mail that goes out, and how far it is. */
export type MailWent = z.infer<typeof outSchema>;

const beforeQuery = z.object({
  before: z.coerce.number().optional(),
  outcome: z.string().max(30).optional(),
});

/** Calls about mail. */
export const mailEndpoints = {
  in: endpoint({
    ...paths.mail.in,
    summary: 'What came in by mail, and what became of it',
    query: beforeQuery,
    answer: z.array(inSchema),
  }),
  out: endpoint({
    ...paths.mail.out,
    summary: 'What went out by mail, and what waits',
    query: beforeQuery,
    answer: z.array(outSchema),
  }),
  texts: endpoint({
    ...paths.mail.texts,
    summary: 'The texts of mails',
    answer: z.array(
      z.object({
        template: z.enum(MAIL_TEMPLATES),
        texts: bothSchema,
        version: z.number().int(),
        isOwn: z.boolean(),
      }),
    ),
  }),
  saveText: endpoint({
    ...paths.mail.saveText,
    summary: 'Write a text anew, or go back to the one to begin with',
    params: z.object({ template: z.enum(MAIL_TEMPLATES) }),
    body: z.object({ version: z.number().int(), texts: bothSchema.nullable() }),
    answer: z.object({ version: z.number().int() }),
  }),
  retry: endpoint({
    ...paths.mail.retry,
    summary: 'Try at once to send what waits or failed',
    params: idParams,
    answer: okSchema,
  }),
  wanted: endpoint({
    ...paths.mail.wanted,
    summary: 'Whether I am told by mail too',
    body: z.object({ wantsMail: z.boolean() }),
    answer: okSchema,
  }),
};
