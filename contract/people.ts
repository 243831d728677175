import * as z from 'zod';
import { endpoint } from './endpoint';
import { paths } from './paths';
import { idSchema, localTextSchema, personRefSchema } from './shared';
import { outOfHoursSchema, progressLabelSchema } from './teams';
import { orderWeightsSchema } from './worklists';

export const personCardSchema = personRefSchema.extend({ title: z.string(), site: z.string() });

export const teamSchema = z.object({
  id: idSchema,
  name: localTextSchema,
  isConfidential: z.boolean(),
  calendarId: idSchema,
  outOfHours: outOfHoursSchema,
  /** The team's own labels of how far something is, in their order. */
  progressLabels: z.array(progressLabelSchema),
  /** What may stand before what falls due sooner in next up. */
  orderWeights: orderWeightsSchema,
  /** Whether I lead it: its order and its shared lists are mine to set. */
  mayLead: z.boolean(),
  version: z.number().int(),
  /** Whether I may set up what concerns this team. */
  mayEdit: z.boolean(),
  groups: z.array(z.object({ id: idSchema, name: z.string() })),
  members: z.array(
    z.object({ id: idSchema, name: z.string(), role: z.string(), groupId: idSchema.nullable() }),
  ),
});
export type Team = z.infer<typeof teamSchema>;

export const peopleEndpoints = {
  search: endpoint({
    ...paths.people.search,
    summary: 'People whose name fits',
    query: z.object({ q: z.string().max(100) }),
    answer: z.array(personCardSchema),
  }),
  teams: endpoint({
    ...paths.people.teams,
    summary: 'All teams with their groups and members',
    answer: z.array(teamSchema),
  }),
};
