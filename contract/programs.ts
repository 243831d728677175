import * as z from 'zod';
import { MOST_A_MINUTE } from '../core/programs';
import { doorPaths } from './doorPaths';
import { endpoint } from './endpoint';
import { idParams, idSchema, instantSchema, okSchema, personRefSchema, textSchema } from './shared';

const MOST_NETWORKS = 20;

const programBodySchema = z.object({
  name: textSchema(100),
  /** What it is for, in a sentence. */
  purpose: z.string().max(500),
  /** Whom to ask about it. */
  ownerId: idSchema,
  isOn: z.boolean(),
  mayChange: z.boolean(),
  /** Whether it sees and sets up what administrators do. */
  isAdministrator: z.boolean(),
  mayAskForOthers: z.boolean(),
  teams: z
    .array(z.object({ teamId: idSchema, role: z.enum(['agent', 'lead', 'teamAdministrator']) }))
    .max(50),
  networks: z.array(z.string().max(60)).max(MOST_NETWORKS),
  perMinute: z.number().int().min(1).max(MOST_A_MINUTE),
  endsAt: instantSchema.nullable(),
});
/** What is set for a program's account. */
export type ProgramBody = z.infer<typeof programBodySchema>;

const apiKeySchema = z.object({
  id: idSchema,
  createdAt: instantSchema,
  endsAt: instantSchema.nullable(),
  revokedAt: instantSchema.nullable(),
  lastUsedAt: instantSchema.nullable(),
  /** The address that it was last used from. */
  lastUsedFrom: z.string().nullable(),
});
/** A key of a program, without its secret. */
export type ApiKeyView = z.infer<typeof apiKeySchema>;

const programSchema = programBodySchema.omit({ ownerId: true }).extend({
  id: idSchema,
  /** Null: they are gone without a trace. */
  owner: personRefSchema.extend({ hasLeft: z.boolean() }).nullable(),
  createdAt: instantSchema,
  version: z.number().int(),
  keys: z.array(apiKeySchema),
});
/** The account of another program. */
export type ProgramView = z.infer<typeof programSchema>;

/** Calls about the accounts of other programs. */
export const programEndpoints = {
  list: endpoint({
    ...doorPaths.programs.list,
    summary: 'The accounts of other programs, with their keys',
    answer: z.array(programSchema),
  }),
  create: endpoint({
    ...doorPaths.programs.create,
    summary: 'Make an account for another program',
    body: programBodySchema,
    answer: z.object({ id: idSchema }),
  }),
  update: endpoint({
    ...doorPaths.programs.update,
    summary: 'Change what a program may do',
    params: idParams,
    body: programBodySchema.extend({ version: z.number().int() }),
    answer: z.object({ version: z.number().int() }),
  }),
  createKey: endpoint({
    ...doorPaths.programs.createKey,
    summary: 'Make a key; its secret is in this answer alone',
    params: idParams,
    body: z.object({ endsAt: instantSchema.nullable() }),
    answer: z.object({ id: idSchema, key: z.string() }),
  }),
  revokeKey: endpoint({
    ...doorPaths.programs.revokeKey,
    summary: 'Take a key back at once',
    params: idParams.extend({ keyId: idSchema }),
    answer: okSchema,
  }),
  self: endpoint({
    ...doorPaths.programs.self,
    summary: 'What the key of this call may do',
    answer: programBodySchema
      .pick({ name: true, mayChange: true, isAdministrator: true, teams: true, perMinute: true })
      .extend({ id: idSchema, keyId: idSchema, keyEndsAt: instantSchema.nullable() }),
  }),
};
