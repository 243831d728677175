import * as z from 'zod';
import { FACTOR_ASKED_OF } from '../core/signOn';
import { doorPaths } from './doorPaths';
import { endpoint } from './endpoint';
import { idParams, idSchema, okSchema, textSchema } from './shared';

const MOST_DOMAINS = 50;
const MOST_LINES = 200;

const providerBodySchema = z.object({
  name: textSchema(100),
  /** As the provider's own words of itself have it. */
  issuer: z.string().trim().min(1, { error: 'missing' }).max(500),
  clientId: z.string().trim().min(1, { error: 'missing' }).max(200),
  domains: z.array(z.string().max(190)).max(MOST_DOMAINS),
  isOn: z.boolean(),
  /** Whether who is not known here is made when they come by it for the first time. */
  makesPeople: z.boolean(),
  siteId: idSchema,
  /** The claim that holds someone's groups; empty: none. */
  groupsClaim: z.string().trim().max(100),
  groupTable: z
    .array(
      z.object({
        group: textSchema(200),
        teamId: idSchema,
        role: z.enum(['agent', 'lead', 'teamAdministrator']),
      }),
    )
    .max(MOST_LINES),
  endsThere: z.boolean(),
});
/** What is set for a provider. */
export type ProviderBody = z.infer<typeof providerBodySchema>;

/** Absent: as before. Empty: a client without a secret. */
const secret = z.string().max(500).optional();

const providerSchema = providerBodySchema.extend({
  id: idSchema,
  hasSecret: z.boolean(),
  /** How many people have come by it. */
  people: z.number().int(),
  version: z.number().int(),
});
/** A provider at which people sign in. */
export type ProviderView = z.infer<typeof providerSchema>;

const settingsSchema = z.object({
  /** The one person who may have a password, for an emergency; null: everybody may. */
  passwordsOnlyOf: idSchema.nullable(),
  factorAskedOf: z.enum(FACTOR_ASKED_OF),
});

/** Calls about where and how people sign in, for administrators. */
export const signOnEndpoints = {
  get: endpoint({
    ...doorPaths.signOn.get,
    summary: 'How people sign in: providers, passwords, second factors',
    answer: z.object({
      providers: z.array(providerSchema),
      settings: settingsSchema,
      /** What a provider has to know of this Listo. */
      returnAddress: z.string(),
      /** Administrators with a password of their own. */
      emergency: z.array(z.object({ id: idSchema, name: z.string() })),
    }),
  }),
  set: endpoint({
    ...doorPaths.signOn.set,
    summary: 'Set who may have a password and of whom a second factor is asked',
    body: settingsSchema,
    answer: okSchema,
  }),
  create: endpoint({
    ...doorPaths.signOn.create,
    summary: 'Add a provider',
    body: providerBodySchema.extend({ secret }),
    answer: z.object({ id: idSchema }),
  }),
  update: endpoint({
    ...doorPaths.signOn.update,
    summary: 'Change a provider',
    params: idParams,
    body: providerBodySchema.extend({ secret, version: z.number().int() }),
    answer: z.object({ version: z.number().int() }),
  }),
  remove: endpoint({
    ...doorPaths.signOn.remove,
    summary: 'Take a provider away; who came by it stays',
    params: idParams,
    answer: okSchema,
  }),
  check: endpoint({
    ...doorPaths.signOn.check,
    summary: 'Ask a provider what it says of itself',
    params: idParams,
    answer: z.object({
      /** Null: it answered as it should. */
      error: z.string().nullable(),
      endsSessions: z.boolean(),
    }),
  }),
};
