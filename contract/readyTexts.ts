import * as z from 'zod';
import { endpoint } from './endpoint';
import { paths } from './paths';
import { idParams, idSchema, localTextSchema, numberParams, okSchema, textSchema } from './shared';

const readyTextSchema = z.object({
  id: idSchema,
  teamId: idSchema.nullable(),
  name: z.string(),
  text: localTextSchema,
  version: z.number().int(),
  mayEdit: z.boolean(),
});
/** A text that is put in by a few letters. */
export type ReadyText = z.infer<typeof readyTextSchema>;

const saveSchema = z.object({
  teamId: idSchema.nullable(),
  name: textSchema(120),
  text: z.object({ en: z.string().max(10_000), pt: z.string().max(10_000) }),
});

/** Calls about ready texts. */
export const readyTextEndpoints = {
  list: endpoint({
    ...paths.readyTexts.list,
    summary: 'My own ready texts and those of my teams',
    answer: z.array(readyTextSchema),
  }),
  create: endpoint({
    ...paths.readyTexts.create,
    summary: 'Keep a piece of text for use again',
    body: saveSchema,
    answer: z.object({ id: idSchema }),
  }),
  update: endpoint({
    ...paths.readyTexts.update,
    summary: 'Change a ready text',
    params: idParams,
    body: saveSchema.extend({ version: z.number().int() }),
    answer: z.object({ version: z.number().int() }),
  }),
  remove: endpoint({
    ...paths.readyTexts.remove,
    summary: 'Do away with a ready text',
    params: idParams,
    answer: okSchema,
  }),
  forTicket: endpoint({
    ...paths.readyTexts.forTicket,
    summary: 'Ready texts for a ticket, with their blanks filled, in its requester’s language',
    params: numberParams,
    answer: z.array(
      z.object({ id: idSchema, name: z.string(), teamId: idSchema.nullable(), text: z.string() }),
    ),
  }),
};
