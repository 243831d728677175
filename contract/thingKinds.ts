import * as z from 'zod';
import { SEEN_BY } from './estateNames';
import { formSchema } from './forms';
import { idSchema, localTextSchema } from './shared';

const countSchema = z.number().int().nonnegative();

/** A kind of things, with the fields of its own. */
export const thingKindSchema = z.object({
  id: idSchema,
  name: localTextSchema,
  form: formSchema,
  seenBy: z.enum(SEEN_BY),
  /** The teams that keep things of this kind; none: every team. */
  keptBy: z.array(idSchema),
  /** Whether things of it are given to people, and come back. */
  isHandedOut: z.boolean(),
  /** The service under which such a thing is reported; null: what fits no other. */
  serviceId: idSchema.nullable(),
  /** Over how many months its cost goes down to nothing; null: it does not. */
  months: z.number().int().nullable(),
  version: z.number().int(),
  count: countSchema,
  /** Whether I may make and change things of it. */
  mayKeep: z.boolean(),
});
/** A kind of things. */
export type ThingKind = z.infer<typeof thingKindSchema>;

/** A kind as it is written. */
export const kindBodySchema = z.object({
  name: localTextSchema.refine(({ en, pt }) => Math.max(en.length, pt.length) <= 60, { error: 'tooLong' }),
  form: formSchema,
  seenBy: z.enum(SEEN_BY),
  keptBy: z.array(idSchema).max(50),
  isHandedOut: z.boolean(),
  serviceId: idSchema.nullable(),
  months: z.number().int().min(1).max(600).nullable(),
});
/** A kind as it is written. */
export type ThingKindBody = z.infer<typeof kindBodySchema>;
