import * as z from 'zod';
import { MOST_LEVEL, ROUTING_WAYS } from '../core/routing';
import { endpoint } from './endpoint';
import { PRESENCES } from './names';
import { paths } from './paths';
import { idParams, idSchema, okSchema, textSchema } from './shared';

const settingsSchema = z.object({
  way: z.enum(ROUTING_WAYS),
  units: z.object({ incident: z.number().int().min(1).max(20), request: z.number().int().min(1).max(20) }),
  needs: z
    .array(
      z.object({
        serviceId: idSchema,
        skill: textSchema(60),
        level: z.number().int().min(1).max(MOST_LEVEL),
      }),
    )
    .max(100),
  goesOnAfter: z.number().int().min(1).max(10_000).nullable(),
  next: z.object({ teamId: idSchema, groupId: idSchema.nullable() }).nullable(),
});

const skillsSchema = z.record(z.string().max(60), z.number().int().min(1).max(MOST_LEVEL));

/** Calls about who gets a team's work. */
export const routingEndpoints = {
  get: endpoint({
    ...paths.routing.get,
    summary: 'How a team’s tickets find a person, and what its people can and carry',
    params: idParams,
    answer: z.object({
      settings: settingsSchema,
      version: z.number().int(),
      mayEdit: z.boolean(),
      people: z.array(
        z.object({
          id: idSchema,
          name: z.string(),
          capacity: z.number().int().nullable(),
          load: z.number().int(),
          isAvailable: z.boolean(),
          isAway: z.boolean(),
          skills: skillsSchema,
        }),
      ),
    }),
  }),
  set: endpoint({
    ...paths.routing.set,
    summary: 'Set how a team’s tickets find a person',
    params: idParams,
    body: z.object({
      settings: settingsSchema,
      version: z.number().int(),
      people: z.array(
        z.object({
          id: idSchema,
          capacity: z.number().int().min(1).max(999).nullable(),
          skills: skillsSchema,
        }),
      ),
    }),
    answer: z.object({ version: z.number().int() }),
  }),
  setPresence: endpoint({
    ...paths.routing.setPresence,
    summary: 'Say whether I take tickets',
    body: z.object({ presence: z.enum(PRESENCES) }),
    answer: okSchema,
  }),
};
