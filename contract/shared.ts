import * as z from 'zod';
import { LANGUAGES } from '../core/forms';
import { findBadText } from '../core/text';

/** An instant in epoch milliseconds. */
export const instantSchema = z.number().int();
/** Ids are printable ASCII; what else is sent as one names nothing. */
export const idSchema = z
  .string()
  .min(1)
  .max(40)
  .regex(/^[\x20-\x7e]+$/);
/** A text in every language. */
export const localTextSchema = z.object({ en: z.string(), pt: z.string() });
/** A language of the interface. */
export const languageSchema = z.enum(LANGUAGES);

/** Text that can be stored exactly, of at most `limit` characters; blank is not text. */
export function textSchema(limit: number) {
  return z
    .string()
    .max(limit, { error: 'tooLong' })
    .refine((text) => findBadText(text) === null, { error: 'badCharacter' })
    .refine((text) => text.trim() !== '', { error: 'missing' });
}

/** A person by id and name. */
export const personRefSchema = z.object({ id: idSchema, name: z.string(), goesFirst: z.boolean() });
/** A person by id and name. */
export type PersonRef = z.infer<typeof personRefSchema>;

/** Done; there is nothing to say. */
export const okSchema = z.object({ ok: z.literal(true) });
/** The number of a ticket in a path. */
export const numberParams = z.object({ number: z.coerce.number().int().positive() });
/** An id in a path. */
export const idParams = z.object({ id: idSchema });
