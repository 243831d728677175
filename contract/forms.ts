import * as z from 'zod';
import type { Condition } from '../core/conditions';
import { COLUMN_KINDS, FIELD_KINDS, KNOWN_FACTS } from '../core/forms';
import { localTextSchema } from './shared';

const scalar = z.union([z.string(), z.number(), z.boolean(), z.null()]);
const listed = z.array(z.union([z.string(), z.number(), z.null()]));

/** The one condition language, as it comes over the wire. */
export const conditionSchema: z.ZodType<Condition> = z
  .lazy(() =>
    z.union([
      z.object({ all: z.array(conditionSchema) }),
      z.object({ any: z.array(conditionSchema) }),
      z.object({ not: conditionSchema }),
      z.object({ field: z.string(), op: z.enum(['is', 'isNot']), value: scalar }),
      z.object({ field: z.string(), op: z.enum(['in', 'notIn']), value: listed }),
      z.object({
        field: z.string(),
        op: z.enum(['lt', 'lte', 'gt', 'gte']),
        value: z.union([z.number(), z.string()]),
      }),
      z.object({ field: z.string(), op: z.literal('contains'), value: z.string() }),
      z.object({ field: z.string(), op: z.enum(['empty', 'notEmpty']) }),
    ]),
  )
  .meta({ id: 'Condition' });

const choiceSchema = z.object({ value: z.string().max(60), label: localTextSchema });

/** A question of a form. */
export const formFieldSchema = z.object({
  name: z.string().max(40),
  kind: z.enum(FIELD_KINDS),
  label: localTextSchema,
  help: localTextSchema.optional(),
  helpLink: z.string().max(500).optional(),
  needed: z.boolean(),
  neededWhen: conditionSchema.optional(),
  shownWhen: conditionSchema.optional(),
  filledFrom: z.enum(KNOWN_FACTS).optional(),
  default: z.union([z.string(), z.number(), z.boolean()]).optional(),
  choices: z.array(choiceSchema).max(200).optional(),
  columns: z
    .array(
      z.object({
        name: z.string().max(40),
        kind: z.enum(COLUMN_KINDS),
        label: localTextSchema,
        choices: z.array(choiceSchema).optional(),
      }),
    )
    .max(20)
    .optional(),
  unit: localTextSchema.optional(),
  assetKind: z.string().max(40).optional(),
  most: z.number().optional(),
  least: z.number().optional(),
  pattern: z.string().max(200).optional(),
  patternWords: localTextSchema.optional(),
  startsPage: z.literal(true).optional(),
});

/** A question of a form with what was answered to it. */
export const answeredSchema = z.object({ field: formFieldSchema, value: z.unknown() });

/** A form. */
export const formSchema = z.object({ fields: z.array(formFieldSchema).max(100) });
