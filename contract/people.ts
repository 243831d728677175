import * as z from 'zod';
import { endpoint } from './endpoint';
import { pastConversationSchema } from './conversations';
import { paths } from './paths';
import { KNOWN_FACTS } from '../core/forms';
import { TICKET_STATES } from '../core/tickets';
import { idParams, idSchema, instantSchema, localTextSchema, personRefSchema } from './shared';
import { outOfHoursSchema, progressLabelSchema } from './teams';
import { orderWeightsSchema } from './worklists';

/** A person as lists of people show them. */
export const personCardSchema = personRefSchema.extend({ title: z.string(), site: z.string() });

const versionSchema = z.object({ version: z.number().int() });

/** A team with its groups and members, and what the reader may do with it. */
export const teamSchema = z.object({
  id: idSchema,
  name: localTextSchema,
  isConfidential: z.boolean(),
  calendarId: idSchema,
  outOfHours: outOfHoursSchema,
  /** The team's own labels of how far something is, in their order. */
  progressLabels: z.array(progressLabelSchema),
  /** Whether those who are asked may say yes or no in workplace chat. */
  decidesInChat: z.boolean(),
  /** Whether the assistant answers what is written to its address. */
  answersMail: z.boolean(),
  /** Teams whose agents may take its tickets and give them on; null: every team. */
  givenOnBy: z.array(idSchema).nullable(),
  /** Teams whose agents may read its tickets, beside those who may take them; null: every team. */
  readBy: z.array(idSchema).nullable(),
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
/** A team with its groups and members, and what the reader may do with it. */
export type Team = z.infer<typeof teamSchema>;

/** Calls about people and teams. */
export const peopleEndpoints = {
  search: endpoint({
    ...paths.people.search,
    summary: 'People by a part of their name, telephone, site, vessel or device',
    query: z.object({ q: z.string().max(100) }),
    answer: z.array(personCardSchema),
  }),
  card: endpoint({
    ...paths.people.card,
    summary: 'Who someone is, for whoever helps them: what is known, what is open, what happened before',
    params: idParams,
    answer: personCardSchema.extend({
      phone: z.string(),
      email: z.string(),
      department: z.string(),
      manager: z.string().nullable(),
      known: z.partialRecord(z.enum(KNOWN_FACTS), z.string()),
      /** The last ones, of those that the reader may read. */
      conversations: z.array(pastConversationSchema),
      tickets: z.array(
        z.object({
          number: z.number().int(),
          title: z.string(),
          state: z.enum(TICKET_STATES),
          createdAt: instantSchema,
          rating: z.number().int().nullable(),
        }),
      ),
    }),
  }),
  leavers: endpoint({
    ...paths.people.leavers,
    summary: 'Who has left, the last first',
    answer: z.array(personCardSchema.extend({ leftAt: instantSchema })),
  }),
  leaving: endpoint({
    ...paths.people.leaving,
    summary: 'What hangs on someone: what waits for them, and where services name them',
    params: idParams,
    answer: personCardSchema.extend({
      leftAt: instantSchema.nullable(),
      version: z.number().int(),
      waiting: z.object({
        asks: z.number().int(),
        tickets: z.number().int(),
        steps: z.number().int(),
        reports: z.number().int(),
      }),
      services: z.array(z.object({ id: idSchema, title: localTextSchema })),
    }),
  }),
  leave: endpoint({
    ...paths.people.leave,
    summary: 'Say that someone has left: they are signed out, and what waits for them goes to others',
    params: idParams,
    body: versionSchema,
    answer: versionSchema,
  }),
  comeBack: endpoint({
    ...paths.people.comeBack,
    summary: 'Say that someone who left is here again',
    params: idParams,
    body: versionSchema,
    answer: versionSchema,
  }),
  teams: endpoint({
    ...paths.people.teams,
    summary: 'All teams with their groups and members',
    answer: z.array(teamSchema),
  }),
};
