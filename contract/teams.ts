import * as z from 'zod';
import { PRIORITIES } from '../core/tickets';
import { effectSchema } from './calendars';
import { endpoint } from './endpoint';
import { paths } from './paths';
import { idParams, idSchema, localTextSchema, okSchema, textSchema } from './shared';

/** What becomes of a team's work while it is off. */
export const outOfHoursSchema = z.object({
  goesTo: idSchema.nullable(),
  priorities: z.array(z.enum(PRIORITIES)),
  words: localTextSchema.nullable(),
});

/** A team's own label of how far something is. */
export const progressLabelSchema = z.object({
  id: idSchema,
  name: localTextSchema,
  /** Whether a ticket under it counts as finished. */
  isFinished: z.boolean(),
});

const versionedSchema = z.object({ version: z.number().int() });
/** A site with its zone and calendar. */
export const siteSchema = z.object({
  id: idSchema,
  name: z.string(),
  timeZone: z.string(),
  calendarId: idSchema,
});
/** A site with its zone and calendar. */
export type Site = z.infer<typeof siteSchema>;

/** Calls about how teams and sites are set up. */
export const teamEndpoints = {
  create: endpoint({
    ...paths.teams.create,
    summary: 'Make a team; it begins with two promises, a first answer and a resolution',
    body: z.object({
      name: z.object({ en: textSchema(100), pt: textSchema(100) }),
      calendarId: idSchema,
      isConfidential: z.boolean().default(false),
    }),
    answer: z.object({ id: idSchema, targetIds: z.array(idSchema) }),
  }),
  update: endpoint({
    ...paths.teams.update,
    summary: 'Change when a team works, what happens to its work out of hours, and where it is decided',
    params: idParams,
    body: versionedSchema.extend({
      calendarId: idSchema.optional(),
      outOfHours: outOfHoursSchema.optional(),
      progressLabels: z.array(progressLabelSchema).max(20).optional(),
      decidesInChat: z.boolean().optional(),
      answersMail: z.boolean().optional(),
      givenOnBy: z.array(idSchema).max(20).nullable().optional(),
      readBy: z.array(idSchema).max(20).nullable().optional(),
    }),
    answer: versionedSchema,
  }),
  effect: endpoint({
    ...paths.teams.effect,
    isReading: true,
    summary: 'What another calendar of a team would move, without changing it',
    params: idParams,
    body: z.object({ calendarId: idSchema }),
    answer: effectSchema,
  }),
  sites: endpoint({
    ...paths.teams.sites,
    summary: 'All sites with their zones',
    answer: z.array(siteSchema),
  }),
  updateSite: endpoint({
    ...paths.teams.updateSite,
    summary: 'Change the calendar of a site',
    params: idParams,
    body: z.object({ calendarId: idSchema }),
    answer: okSchema,
  }),
};
