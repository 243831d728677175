import * as z from 'zod';
import { KNOWN_FACTS } from '../core/forms';
import { endpoint } from './endpoint';
import { AREAS, PRESENCES } from './names';
import { paths } from './paths';
import { idParams, idSchema, instantSchema, languageSchema, okSchema, textSchema } from './shared';

/** Who is signed in, and what is theirs to enter. */
export const meSchema = z.object({
  id: idSchema,
  name: z.string(),
  title: z.string(),
  language: languageSchema,
  timeZone: z.string(),
  calendarId: idSchema,
  isAdministrator: z.boolean(),
  mayAskForOthers: z.boolean(),
  teams: z.array(z.object({ teamId: idSchema, role: z.enum(['agent', 'lead', 'teamAdministrator']) })),
  known: z.partialRecord(z.enum(KNOWN_FACTS), z.string()),
  areas: z.array(z.enum(AREAS)),
  /** Whether they are told by mail too. */
  /** Whether the assistant answers in Ask. */
  hasAssistant: z.boolean(),
  wantsMail: z.boolean(),
  /** Whether they take tickets; null for who works in no team. */
  presence: z.enum(PRESENCES).nullable(),
  /** How many pieces of work they carry now, and how much they can. */
  carries: z.object({ load: z.number().int(), capacity: z.number().int().nullable() }).nullable(),
});
/** Who is signed in, and what is theirs to enter. */
export type Me = z.infer<typeof meSchema>;

/** `now` lets the browser show the server's time whatever its own clock says. */
const sessionSchema = z.object({
  me: meSchema.nullable(),
  isDemo: z.boolean(),
  needsSetup: z.boolean(),
  /** Somebody has signed in of whom a second factor is asked, and who has none yet: they set it first. */
  mustSetFactor: z.boolean(),
  /** How one may come in; null: one is in. */
  waysIn: z
    .object({
      providers: z.array(z.object({ id: idSchema, name: z.string(), domains: z.array(z.string()) })),
      /** Else there is one for an emergency alone. */
      hasPasswords: z.boolean(),
    })
    .nullable(),
  now: instantSchema,
});

const demoPersonSchema = z.object({
  id: idSchema,
  name: z.string(),
  title: z.string(),
  site: z.string(),
  group: z.enum(['ask', 'approve', 'desk']),
  teams: z.array(z.string()),
  mayDo: z.array(z.string()),
});

/** Calls about signing in, sessions and setting up. */
export const sessionEndpoints = {
  get: endpoint({
    ...paths.session.get,
    summary: 'Who is signed in',
    isOpen: true,
    answer: sessionSchema,
  }),
  signIn: endpoint({
    ...paths.session.signIn,
    summary: 'Sign in with a name and a password, and a code where there is a second factor',
    isOpen: true,
    body: z.object({
      ...{ email: z.string().min(1).max(200), password: z.string().min(1).max(200) },
      code: z.string().max(40).optional(),
    }),
    answer: okSchema,
  }),
  signInDemo: endpoint({
    ...paths.session.signInDemo,
    summary: 'Sign in as one of the demo people (demo data only)',
    isOpen: true,
    body: z.object({ personId: idSchema }),
    answer: okSchema,
  }),
  signOut: endpoint({
    ...paths.session.signOut,
    isOpen: true,
    isForPeople: true,
    summary: 'Sign out',
    answer: z.object({
      /** Where the browser goes on to, to sign out there too; null: nowhere. */
      goOnAt: z.string().nullable(),
    }),
  }),
  factor: endpoint({
    ...paths.session.factor,
    isOpen: true,
    isForPeople: true,
    summary: 'Whether I have a second factor',
    answer: z.object({ since: instantSchema.nullable(), spares: z.number().int() }),
  }),
  beginFactor: endpoint({
    ...paths.session.beginFactor,
    isOpen: true,
    isForPeople: true,
    summary: 'Make a secret for a program that shows codes; it counts once a code is given',
    answer: z.object({ secret: z.string(), address: z.string() }),
  }),
  confirmFactor: endpoint({
    ...paths.session.confirmFactor,
    isOpen: true,
    isForPeople: true,
    summary: 'Have my second factor count, by a code of it',
    body: z.object({ code: z.string().min(1).max(40) }),
    answer: z.object({
      /** Codes for when it is lost, each for one time: in this answer alone. */
      spares: z.array(z.string()),
    }),
  }),
  removeFactor: endpoint({
    ...paths.session.removeFactor,
    isForPeople: true,
    summary: 'Take my second factor away, by a code of it',
    body: z.object({ code: z.string().max(40) }),
    answer: okSchema,
  }),
  demoPeople: endpoint({
    ...paths.session.demoPeople,
    summary: 'The demo people one can sign in as',
    isOpen: true,
    answer: z.array(demoPersonSchema),
  }),
  list: endpoint({
    ...paths.session.list,
    isForPeople: true,
    summary: 'Where I am signed in',
    answer: z.array(
      z.object({
        id: idSchema,
        createdAt: instantSchema,
        seenAt: instantSchema,
        userAgent: z.string(),
        isThis: z.boolean(),
      }),
    ),
  }),
  end: endpoint({
    ...paths.session.end,
    isForPeople: true,
    summary: 'End one of my sessions',
    params: idParams,
    answer: okSchema,
  }),
  setLanguage: endpoint({
    ...paths.session.setLanguage,
    isForPeople: true,
    summary: 'Choose my language',
    body: z.object({ language: languageSchema }),
    answer: okSchema,
  }),
  password: endpoint({
    ...paths.session.password,
    isForPeople: true,
    summary: 'Take another password; all other sessions end',
    body: z.object({ current: z.string().max(200), password: z.string().min(1).max(200) }),
    answer: okSchema,
  }),
  endOthers: endpoint({
    ...paths.session.endOthers,
    isForPeople: true,
    summary: 'End all my sessions but this one',
    answer: z.object({ ended: z.number().int() }),
  }),
  setUp: endpoint({
    ...paths.session.setUp,
    summary: 'Make the first administrator of an empty Listo',
    isOpen: true,
    body: z.object({
      /** What the start command printed: only who can read that sets Listo up. */
      code: z.string().max(40),
      organisation: textSchema(100),
      name: textSchema(100),
      email: z.email({ error: 'malformed' }).max(200),
      password: z.string().max(200),
      timeZone: z.string().max(60),
    }),
    answer: okSchema,
  }),
};
