import * as z from 'zod';
import { DURATION_SHAPE } from '../core/calendar';
import { SERVICE_PARTS } from '../core/catalogue';
import { IMPACTS, TICKET_KINDS, TICKET_STATES, URGENCIES } from '../core/tickets';
import { categorySchema } from './catalogue';
import { endpoint } from './endpoint';
import { conditionSchema, formSchema } from './forms';
import { PLACES } from './names';
import { paths } from './paths';
import { idParams, idSchema, instantSchema, localTextSchema, okSchema } from './shared';

const words = z.object({ en: z.string().max(2000), pt: z.string().max(2000) });

/** Whom a service is for. */
export const audienceSchema = z.array(
  z.union([
    z.object({ by: z.enum(['site', 'department', 'title', 'team']), in: z.array(z.string()) }),
    z.object({ by: z.enum(['onVessel', 'lead', 'agent']) }),
    z.object({ by: z.literal('condition'), when: conditionSchema }),
  ]),
);

const refSchema = z.union([
  z.object({ person: idSchema }),
  z.object({
    manager: z.enum(['ofRequester', 'ofRecipient']),
    levels: z.number().int().min(1).max(9).optional(),
  }),
  z.object({ team: idSchema, only: z.literal('leads').optional() }),
  z.object({ ownerOf: z.enum(['service', 'costCentre', 'asset']) }),
  z.object({ headOfSite: z.string() }),
]);
const needsSchema = z.union([
  z.object({ kind: z.enum(['any', 'all']) }),
  z.object({ kind: z.literal('count'), count: z.number().int() }),
  z.object({ kind: z.literal('percent'), percent: z.number() }),
]);
const silenceSchema = z.object({
  after: z.string().regex(DURATION_SHAPE),
  then: z.enum(['remind', 'passUp', 'approve', 'decline']),
  most: z.number().int().min(1).max(99).optional(),
});
const agreedShape = {
  refs: z.array(refSchema),
  needs: needsSchema,
  declineBy: z.enum(['any', 'outOfReach']),
  silence: silenceSchema.optional(),
};
const processStepSchema = z.object({
  name: words,
  when: conditionSchema.optional(),
  ...agreedShape,
  carry: z.literal(true).optional(),
});

const stepShape = {
  id: idSchema,
  leg: idSchema,
  name: words,
  after: z.array(idSchema).optional(),
  when: conditionSchema.optional(),
  effort: z.string().max(20).optional(),
  notBefore: z.object({ field: z.string(), daysBefore: z.number().int() }).optional(),
};
const actionSchema = z.union([
  z.object({ do: z.literal('wait') }),
  z.object({
    do: z.literal('setField'),
    field: z.string(),
    value: z.union([z.string(), z.number(), z.boolean()]),
  }),
  z.object({ do: z.literal('send'), address: z.string().max(500) }),
]);
const planSchema = z.object({
  doneWords: words.optional(),
  legs: z.array(z.object({ id: idSchema, name: words })).max(40),
  steps: z
    .array(
      z.discriminatedUnion('kind', [
        z.object({
          ...stepShape,
          kind: z.literal('task'),
          teamId: z.string().max(40),
          groupId: idSchema.optional(),
          checklist: z.array(words).max(60).optional(),
        }),
        z.object({ ...stepShape, kind: z.literal('approval'), ...agreedShape }),
        z.object({ ...stepShape, kind: z.literal('ranking'), teamId: z.string().max(40) }),
        z.object({ ...stepShape, kind: z.literal('automatic'), action: actionSchema }),
      ]),
    )
    .max(300),
});

const openingSchema = z.object({
  from: instantSchema.nullable(),
  until: instantSchema.nullable(),
  most: z.number().int().nullable(),
});

const stateWordsSchema = z.partialRecord(z.enum(TICKET_STATES), words);

/** A service as it is written. */
export const definitionSchema = z.object({
  kind: z.enum(TICKET_KINDS),
  place: z.enum(PLACES),
  categoryId: idSchema.nullable(),
  icon: z.string().max(40).nullable(),
  title: words,
  description: words,
  otherWords: words,
  teamId: z.string().max(40),
  groupId: idSchema.nullable(),
  ownerId: idSchema.nullable().default(null),
  audience: audienceSchema,
  opening: openingSchema.nullable().default(null),
  form: formSchema,
  approvals: z.array(processStepSchema).max(20),
  plan: planSchema.nullable(),
  fallbackApproverId: idSchema.nullable(),
  cost: z.number().int().nullable(),
  impact: z.enum(IMPACTS),
  urgency: z.enum(URGENCIES),
  stateWords: stateWordsSchema,
  articleLabels: z.array(z.string().max(60)).nullable(),
  thanks: words.nullable().default(null),
});

const problemSchema = z.object({
  part: z.enum(SERVICE_PARTS),
  code: z.string(),
  at: z.string().optional(),
  detail: z.string().optional(),
});
const judgedShape = {
  /** How many people it is for today. */
  audience: z.number().int(),
  /** What is in the way of publishing. */
  problems: z.array(problemSchema),
};

const lineSchema = z.object({
  id: idSchema,
  title: localTextSchema,
  kind: z.enum(TICKET_KINDS),
  place: z.enum(PLACES),
  categoryId: idSchema.nullable(),
  teamId: z.string(),
  /** How often it has been published; 0: never. */
  version: z.number().int(),
  isOn: z.boolean(),
  hasDraft: z.boolean(),
  mayEdit: z.boolean(),
  openRequests: z.number().int(),
});
/** A service as the Workshop lists it. */
export type ServiceLine = z.infer<typeof lineSchema>;

const editedSchema = z.object({
  id: idSchema,
  definition: definitionSchema,
  /** The names of those who are named in it, by their ids. */
  names: z.record(z.string(), z.string()),
  /** Of the draft; 0: there is none, and what is shown is what is published. */
  draftVersion: z.number().int(),
  version: z.number().int(),
  publishedAt: instantSchema.nullable(),
  isOn: z.boolean(),
  offWords: localTextSchema.nullable(),
  mayEdit: z.boolean(),
  openRequests: z.number().int(),
  /** The pages that may show it within them: origins. */
  embedOrigins: z.array(z.string()),
  ...judgedShape,
});
/** A service as it is being written, with what is in the way of publishing it. */
export type EditedService = z.infer<typeof editedSchema>;
/** What is written of a service. */
export type EditedDefinition = EditedService['definition'];

/** Calls about services as they are written. */
export const serviceEndpoints = {
  list: endpoint({
    ...paths.services.list,
    summary: 'All services with their drafts',
    answer: z.array(lineSchema),
  }),
  create: endpoint({
    ...paths.services.create,
    summary: 'Begin a service: from a ready set, or as a copy of another',
    body: z.object({
      title: words,
      teamId: idSchema,
      from: z.union([z.object({ kit: z.string().max(40) }), z.object({ service: idSchema })]),
    }),
    answer: z.object({ id: idSchema }),
  }),
  audienceWords: endpoint({
    ...paths.services.audienceWords,
    summary: 'The departments and jobs that there are',
    answer: z.object({ departments: z.array(z.string()), titles: z.array(z.string()) }),
  }),
  order: endpoint({
    ...paths.services.order,
    summary: 'Put services in an order',
    body: z.object({ ids: z.array(idSchema).max(1000) }),
    answer: okSchema,
  }),
  get: endpoint({
    ...paths.services.get,
    summary: 'A service as it is being written',
    params: idParams,
    answer: editedSchema,
  }),
  save: endpoint({
    ...paths.services.save,
    summary: 'Keep a draft; nobody sees it before it is published',
    params: idParams,
    body: z.object({ draftVersion: z.number().int(), definition: definitionSchema }),
    answer: z.object({ draftVersion: z.number().int(), ...judgedShape }),
  }),
  discard: endpoint({
    ...paths.services.discard,
    summary: 'Throw a draft away',
    params: idParams,
    answer: okSchema,
  }),
  publish: endpoint({
    ...paths.services.publish,
    summary: 'Publish the draft; requests that are open keep the version under which they were sent',
    params: idParams,
    body: z.object({ draftVersion: z.number().int() }),
    answer: z.object({ version: z.number().int() }),
  }),
  versions: endpoint({
    ...paths.services.versions,
    summary: 'The versions that were published, the present one first',
    params: idParams,
    answer: z.array(
      z.object({
        version: z.number().int(),
        publishedAt: instantSchema.nullable(),
        /** Who published it, where that is known. */
        by: z.string().nullable(),
        /** What differs from the one before. */
        changed: z.array(z.string()),
        /** Open requests that keep it. */
        openRequests: z.number().int(),
        definition: definitionSchema,
      }),
    ),
  }),
  turn: endpoint({
    ...paths.services.turn,
    summary: 'Switch a service off, with a word to those who come for it, or on again',
    params: idParams,
    body: z.object({ isOn: z.boolean(), offWords: words.nullable().default(null) }),
    answer: okSchema,
  }),
  tryAs: endpoint({
    ...paths.services.tryAs,
    summary: 'How someone would find it',
    params: z.object({ id: idSchema, personId: idSchema }),
    answer: z.object({
      isForThem: z.boolean(),
      name: z.string(),
      title: z.string(),
      known: z.record(z.string(), z.string()),
    }),
  }),
  saveCategories: endpoint({
    ...paths.services.saveCategories,
    summary: 'Set the tree of subjects',
    body: z.object({ categories: z.array(categorySchema).max(500) }),
    answer: okSchema,
  }),
};
