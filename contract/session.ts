import { z } from 'zod';
import { KNOWN_FACTS } from '../core/forms';
import { endpoint } from './endpoint';
import { idParams, idSchema, instantSchema, languageSchema, okSchema, textSchema } from './shared';

export const AREAS = ['ask', 'desk'] as const;

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
});
export type Me = z.infer<typeof meSchema>;

/** `now` lets the browser show the server's time whatever its own clock says. */
const sessionSchema = z.object({
  me: meSchema.nullable(),
  isDemo: z.boolean(),
  needsSetup: z.boolean(),
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

export const sessionEndpoints = {
  get: endpoint({
    method: 'get',
    path: '/session',
    summary: 'Who is signed in',
    isOpen: true,
    answer: sessionSchema,
  }),
  signIn: endpoint({
    method: 'post',
    path: '/session',
    summary: 'Sign in with a name and a password',
    isOpen: true,
    body: z.object({ email: z.string().min(1).max(200), password: z.string().min(1).max(200) }),
    answer: okSchema,
  }),
  signInDemo: endpoint({
    method: 'post',
    path: '/session/demo',
    summary: 'Sign in as one of the demo people (demo data only)',
    isOpen: true,
    body: z.object({ personId: idSchema }),
    answer: okSchema,
  }),
  signOut: endpoint({ method: 'delete', path: '/session', summary: 'Sign out', answer: okSchema }),
  demoPeople: endpoint({
    method: 'get',
    path: '/demo/people',
    summary: 'The demo people one can sign in as',
    isOpen: true,
    answer: z.array(demoPersonSchema),
  }),
  list: endpoint({
    method: 'get',
    path: '/sessions',
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
    method: 'delete',
    path: '/sessions/:id',
    summary: 'End one of my sessions',
    params: idParams,
    answer: okSchema,
  }),
  setLanguage: endpoint({
    method: 'put',
    path: '/me/language',
    summary: 'Choose my language',
    body: z.object({ language: languageSchema }),
    answer: okSchema,
  }),
  setUp: endpoint({
    method: 'post',
    path: '/setup',
    summary: 'Make the first administrator of an empty Listo',
    isOpen: true,
    body: z.object({
      organisation: textSchema(100),
      name: textSchema(100),
      email: z.email({ error: 'malformed' }).max(200),
      password: z.string().min(12, { error: 'tooShort' }).max(200),
      timeZone: z.string().max(60),
    }),
    answer: okSchema,
  }),
};
