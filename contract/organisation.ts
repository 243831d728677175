import * as z from 'zod';
import { endpoint } from './endpoint';
import { paths } from './paths';
import {
  idParams,
  idSchema,
  instantSchema,
  languageSchema,
  localTextSchema,
  okSchema,
  personRefSchema,
  textSchema,
} from './shared';
import { WAYS_IN } from '../core/signOn';
import { SETUP_COUNTS } from '../core/setup';
import { findBadText } from '../core/text';

/** Text that may be blank. */
const maybeText = (limit: number) =>
  z
    .string()
    .max(limit, { error: 'tooLong' })
    .refine((text) => findBadText(text) === null, { error: 'badCharacter' });

/** What someone is in a team. */
export const TEAM_ROLES = ['agent', 'lead', 'teamAdministrator'] as const;
/** Who is listed: who is here, who is away now, who has left. */
export const PEOPLE_STATES = ['here', 'away', 'left'] as const;
/** By what people of the list are told apart: those in a team, those who administer, those in none. */
export const PEOPLE_ROLES = ['agent', 'administrator', 'employee'] as const;

/** What is kept of a person, as it is written. */
export const personBodySchema = z.object({
  name: textSchema(100),
  email: z.string().max(200),
  phone: maybeText(40),
  title: maybeText(100),
  department: maybeText(100),
  siteId: idSchema,
  place: maybeText(100),
  vessel: maybeText(100),
  costCentre: maybeText(40),
  managerId: idSchema.nullable(),
  language: languageSchema,
  isAdministrator: z.boolean(),
  mayAskForOthers: z.boolean(),
  goesFirst: z.boolean(),
});
/** What is kept of a person, as it is written. */
export type PersonBody = z.infer<typeof personBodySchema>;

const membershipSchema = z.object({
  teamId: idSchema,
  name: localTextSchema,
  role: z.enum(TEAM_ROLES),
  groupId: idSchema.nullable(),
});

const invitationSchema = z.object({ at: instantSchema, endsAt: instantSchema, byName: z.string() });

/** A person with all that those who keep people see of them. */
export const keptPersonSchema = personBodySchema.extend({
  id: idSchema,
  version: z.number().int(),
  leftAt: instantSchema.nullable(),
  manager: personRefSchema.nullable(),
  teams: z.array(membershipSchema),
  wayIn: z.enum(WAYS_IN),
  /** The one that waits for them. */
  invitation: invitationSchema.nullable(),
  sessions: z.number().int(),
  hasFactor: z.boolean(),
  /** The providers by which they have come in. */
  providers: z.array(z.string()),
  /** What was changed of them, the last first. */
  history: z.array(
    z.object({
      at: instantSchema,
      byName: z.string().nullable(),
      type: z.string(),
      fields: z.array(z.string()),
      team: localTextSchema.nullable(),
    }),
  ),
});
/** A person with all that those who keep people see of them. */
export type KeptPerson = z.infer<typeof keptPersonSchema>;

/** A person as the list of people shows them. */
export const listedPersonSchema = personRefSchema.extend({
  ...{ title: z.string(), department: z.string(), site: z.string(), email: z.string() },
  leftAt: instantSchema.nullable(),
  isAway: z.boolean(),
  isAdministrator: z.boolean(),
  teams: z.array(localTextSchema),
  wayIn: z.enum(WAYS_IN),
});

const memberParams = z.object({ id: idSchema, teamId: idSchema });
const tokenParams = z.object({ token: z.string().regex(/^[\w-]{20,100}$/) });
const versioned = z.object({ version: z.number().int() });

/** Calls about the people of the organisation, for those who keep them. */
export const organisationEndpoints = {
  setup: endpoint({
    ...paths.organisation.setup,
    summary: 'How much there is of all that is set up, for those who set up',
    answer: z.record(z.enum(SETUP_COUNTS), z.number().int()),
  }),
  people: endpoint({
    ...paths.organisation.people,
    summary: 'The people of the organisation, a page at a time',
    query: z.object({
      q: z.string().max(100).default(''),
      siteId: idSchema.optional(),
      teamId: idSchema.optional(),
      state: z.enum(PEOPLE_STATES).default('here'),
      role: z.enum(PEOPLE_ROLES).optional(),
      after: z.string().max(400).optional(),
    }),
    answer: z.object({ rows: z.array(listedPersonSchema), after: z.string().nullable() }),
  }),
  person: endpoint({
    ...paths.organisation.person,
    summary: 'A person with teams, way in and what was changed of them',
    params: idParams,
    answer: keptPersonSchema,
  }),
  create: endpoint({
    ...paths.organisation.create,
    summary: 'Make a person, and invite them if that is wanted',
    body: z.object({ person: personBodySchema, teamId: idSchema.nullable(), isInvited: z.boolean() }),
    answer: z.object({ id: idSchema }),
  }),
  update: endpoint({
    ...paths.organisation.update,
    summary: 'Change what is kept of a person',
    params: idParams,
    body: z.object({ version: z.number().int(), person: personBodySchema }),
    answer: versioned,
  }),
  alike: endpoint({
    ...paths.organisation.alike,
    summary: 'People who may be the same as one of this name or address',
    query: z.object({ name: z.string().max(100), email: z.string().max(200) }),
    answer: z.array(listedPersonSchema),
  }),
  invite: endpoint({
    ...paths.organisation.invite,
    summary: 'Send someone a link that lets them in once, within seven days; an earlier one ends',
    params: idParams,
    body: z.object({}),
    /** The link, to be handed over where no mail leaves. */
    answer: invitationSchema.extend({ link: z.string(), isMailed: z.boolean() }),
  }),
  removeFactor: endpoint({
    ...paths.organisation.removeFactor,
    summary: 'Take the second factor of someone away who has lost it',
    params: idParams,
    answer: okSchema,
  }),
  setMember: endpoint({
    ...paths.organisation.setMember,
    summary: 'Take someone into a team, or give them another role or group there',
    params: memberParams,
    body: z.object({ role: z.enum(TEAM_ROLES), groupId: idSchema.nullable() }),
    answer: okSchema,
  }),
  removeMember: endpoint({
    ...paths.organisation.removeMember,
    summary: 'Take someone out of a team; what they have of its work goes back to it',
    params: memberParams,
    answer: okSchema,
  }),
  createGroup: endpoint({
    ...paths.organisation.createGroup,
    summary: 'Make a group of a team',
    params: idParams,
    body: z.object({ name: textSchema(100) }),
    answer: z.object({ id: idSchema }),
  }),
  createSite: endpoint({
    ...paths.organisation.createSite,
    summary: 'Make a site',
    body: z.object({ name: textSchema(100), timeZone: z.string().max(60), calendarId: idSchema }),
    answer: z.object({ id: idSchema }),
  }),
  invitation: endpoint({
    ...paths.organisation.invitation,
    summary: 'Whom a link is for, or why it lets nobody in any more',
    isOpen: true,
    params: tokenParams,
    answer: z.object({
      state: z.enum(['open', 'used', 'ended', 'replaced']),
      name: z.string(),
      email: z.string(),
      organisation: z.string(),
    }),
  }),
  forgotten: endpoint({
    ...paths.organisation.forgotten,
    summary: 'Send a link for another password, if this address is known here; the answer does not tell',
    isOpen: true,
    body: z.object({ email: z.string().min(1).max(200) }),
    answer: okSchema,
  }),
  accept: endpoint({
    ...paths.organisation.accept,
    summary: 'Come in by a link, with a password of one’s own',
    isOpen: true,
    params: tokenParams,
    body: z.object({ password: z.string().max(200), code: z.string().max(40).optional() }),
    answer: okSchema,
  }),
};
