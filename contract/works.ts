import * as z from 'zod';
import { PROBLEM_STAGES } from '../core/problems';
import { WORK_ACTS, WORK_LIMITS, WORK_OUTCOMES, WORK_SORTS, WORK_STAGES } from '../core/works';
import { endpoint } from './endpoint';
import { thingRefSchema } from './estate';
import { paths } from './paths';
import {
  idParams,
  idSchema,
  instantSchema,
  localTextSchema,
  numberParams,
  okSchema,
  personRefSchema,
  textSchema,
} from './shared';

const countSchema = z.number().int().nonnegative();
const limited = (limit: number) => z.string().max(limit, { error: 'tooLong' });
const both = (limit: number) => z.object({ en: limited(limit), pt: limited(limit) });
const versioned = z.object({ version: z.number().int() });
const levelSchema = z.enum(['low', 'medium', 'high']);

/** A change as it is written. */
export const workBodySchema = z.object({
  title: textSchema(200),
  sort: z.enum(WORK_SORTS),
  fromAt: instantSchema.nullable(),
  toAt: instantSchema.nullable(),
  why: limited(WORK_LIMITS.why),
  /** How one finds out that it has worked. */
  test: limited(WORK_LIMITS.test),
  /** How it is taken back. */
  takeBack: limited(WORK_LIMITS.takeBack),
  /** The things that it takes out while it goes on. */
  thingIds: z.array(idSchema).max(200),
  problemNumber: z.number().int().positive().nullable(),
  /** A risk that is said otherwise than it was reckoned, and why. */
  riskSaid: levelSchema.nullable(),
  riskReason: limited(WORK_LIMITS.reason),
});
/** A change as it is written. */
export type WorkBody = z.infer<typeof workBodySchema>;

const workNameSchema = z.object({ number: z.number().int(), title: z.string() });

/** Where works get into each other's way, or into a freeze. */
export const clashSchema = z.object({
  kind: z.enum(['same', 'together', 'frozen', 'alone']),
  works: z.array(workNameSchema),
  things: z.array(thingRefSchema),
  from: instantSchema,
  to: instantSchema,
  freeze: z.object({ id: idSchema, name: localTextSchema }).nullable(),
});
/** Where works get into each other's way, or into a freeze. */
export type WorkClash = z.infer<typeof clashSchema>;

/** What is reckoned of a change: whom it reaches, how such changes went, what it gets in the way of. */
export const reckonedSchema = z.object({
  down: z.array(thingRefSchema),
  downCount: countSchema,
  weakenedCount: countSchema,
  watched: z.array(thingRefSchema),
  people: countSchema,
  /** How changes of the same template went within a year: how many failed, of how many, with the interval of that share at 95 %. */
  past: z.object({ failed: countSchema, all: countSchema, low: z.number(), high: z.number() }),
  impact: levelSchema,
  likelihood: levelSchema,
  risk: levelSchema,
  clashes: z.array(clashSchema),
  /** Things that are retired meanwhile. */
  retired: z.array(thingRefSchema),
});
/** What is reckoned of a change. */
export type Reckoned = z.infer<typeof reckonedSchema>;

/** A change as lists and the calendar show it. */
export const workCardSchema = z.object({
  number: z.number().int(),
  title: z.string(),
  sort: z.enum(WORK_SORTS),
  stage: z.enum(WORK_STAGES),
  fromAt: instantSchema.nullable(),
  toAt: instantSchema.nullable(),
  startedAt: instantSchema.nullable(),
  endedAt: instantSchema.nullable(),
  risk: levelSchema.nullable(),
  teamId: idSchema,
  team: localTextSchema,
  thingIds: z.array(idSchema),
  requester: personRefSchema,
  mayMove: z.boolean(),
  version: z.number().int(),
});
/** A change as lists and the calendar show it. */
export type WorkCard = z.infer<typeof workCardSchema>;

/** A change with all that is known of it. */
export const workSchema = workCardSchema.extend(workBodySchema.omit({ thingIds: true }).shape).extend({
  thingIds: z.array(idSchema),
  things: z.array(thingRefSchema),
  service: z.object({ id: idSchema, title: localTextSchema }),
  isStandard: z.boolean(),
  submittedAt: instantSchema.nullable(),
  outcome: z.enum(WORK_OUTCOMES).nullable(),
  review: z.string(),
  reviewedAt: instantSchema.nullable(),
  needsReview: z.boolean(),
  acts: z.array(z.enum(WORK_ACTS)),
  reckoned: reckonedSchema,
  problem: z
    .object({ number: z.number().int(), title: z.string(), stage: z.enum(PROBLEM_STAGES) })
    .nullable(),
  notices: z.array(z.object({ id: idSchema, title: localTextSchema })),
});
/** A change with all that is known of it. */
export type Work = z.infer<typeof workSchema>;

/** A stretch in which no work may be going on at some things, or at any. */
export const freezeSchema = z.object({
  id: idSchema,
  name: localTextSchema,
  fromAt: instantSchema,
  toAt: instantSchema,
  /** null: everything. */
  thingIds: z.array(idSchema).nullable(),
  version: z.number().int(),
});
/** A stretch without changes. */
export type Freeze = z.infer<typeof freezeSchema>;
const freezeBodySchema = z.object({
  name: both(120),
  fromAt: instantSchema,
  toAt: instantSchema,
  thingIds: z.array(idSchema).max(200).nullable(),
});

/** The calendar of work over a stretch. */
export const workCalendarSchema = z.object({
  works: z.array(workCardSchema),
  freezes: z.array(freezeSchema),
  notices: z.array(
    z.object({
      id: idSchema,
      title: localTextSchema,
      kind: z.enum(['outage', 'planned']),
      fromAt: instantSchema,
      untilAt: instantSchema.nullable(),
      thingIds: z.array(idSchema),
    }),
  ),
  /** What the works are done to, and what is named by freezes and notices. */
  things: z.array(thingRefSchema),
  clashes: z.array(clashSchema),
  maySetFreezes: z.boolean(),
});
/** The calendar of work over a stretch. */
export type WorkCalendar = z.infer<typeof workCalendarSchema>;

/** What a change can be begun from: a service of changes, with what it fills in. */
export const workTemplateSchema = z.object({
  serviceId: idSchema,
  title: localTextSchema,
  description: localTextSchema,
  teamId: idSchema,
  isStandard: z.boolean(),
  minutes: countSchema,
  why: localTextSchema,
  test: localTextSchema,
  takeBack: localTextSchema,
  thingIds: z.array(idSchema),
  version: z.number().int(),
  past: z.object({ failed: countSchema, all: countSchema }),
  /** Whether it is advised to agree to it beforehand, from how it went. */
  advice: z.enum(['propose', 'lose']).nullable(),
  maySet: z.boolean(),
});
/** What a change can be begun from. */
export type WorkTemplate = z.infer<typeof workTemplateSchema>;

const askedSchema = z.object({
  /** The change that is asked for, where there is one already: its old place is left out. */
  number: z.number().int().positive().nullable(),
  serviceId: idSchema,
  thingIds: z.array(idSchema).max(200),
});

/** Calls about changes, freezes and the calendar of work. */
export const workEndpoints = {
  calendar: endpoint({
    ...paths.works.calendar,
    summary: 'The calendar of work over a stretch, with freezes, notices and clashes',
    query: z.object({ from: z.coerce.number().int(), to: z.coerce.number().int() }),
    answer: workCalendarSchema,
  }),
  list: endpoint({
    ...paths.works.list,
    summary: 'Changes that are to be written, decided, done or reviewed',
    answer: z.array(workCardSchema),
  }),
  templates: endpoint({
    ...paths.works.templates,
    summary: 'What a change can be begun from',
    answer: z.array(workTemplateSchema),
  }),
  setTemplate: endpoint({
    ...paths.works.setTemplate,
    summary: 'Say what a template fills in, and whether its changes are agreed beforehand',
    params: idParams,
    body: z.object({
      version: z.number().int(),
      isStandard: z.boolean(),
      minutes: countSchema.max(100_000),
      why: both(WORK_LIMITS.why),
      test: both(WORK_LIMITS.test),
      takeBack: both(WORK_LIMITS.takeBack),
      thingIds: z.array(idSchema).max(200),
    }),
    answer: versioned,
  }),
  check: endpoint({
    ...paths.works.check,
    isReading: true,
    summary: 'What a change would reach, its risk, and what it would get in the way of',
    body: askedSchema.extend({ fromAt: instantSchema.nullable(), toAt: instantSchema.nullable() }),
    answer: reckonedSchema,
  }),
  slot: endpoint({
    ...paths.works.slot,
    isReading: true,
    summary: 'The next free time for a change',
    body: askedSchema.extend({
      minutes: z.number().int().positive().max(100_000),
      notBefore: instantSchema,
      notAfter: instantSchema,
      /** Only while nobody works by this calendar; null: at any time. */
      outsideCalendarId: idSchema.nullable(),
    }),
    answer: z.object({ fromAt: instantSchema.nullable() }),
  }),
  create: endpoint({
    ...paths.works.create,
    summary: 'Begin to write a change',
    body: workBodySchema.extend({ serviceId: idSchema }),
    answer: z.object({ number: z.number().int() }),
  }),
  get: endpoint({
    ...paths.works.get,
    summary: 'A change with all that is known of it',
    params: numberParams,
    answer: workSchema,
  }),
  update: endpoint({
    ...paths.works.update,
    summary: 'Change what a change is; whoever agreed to it is asked anew',
    params: numberParams,
    body: workBodySchema.extend({ version: z.number().int() }),
    answer: versioned,
  }),
  move: endpoint({
    ...paths.works.move,
    summary: 'Put a change at another time',
    params: numberParams,
    body: z.object({ version: z.number().int(), fromAt: instantSchema, toAt: instantSchema }),
    answer: versioned,
  }),
  submit: endpoint({
    ...paths.works.submit,
    summary: 'Submit a change to those who agree to it',
    params: numberParams,
    body: versioned,
    answer: versioned,
  }),
  start: endpoint({
    ...paths.works.start,
    summary: 'Begin the work',
    params: numberParams,
    body: versioned,
    answer: versioned,
  }),
  end: endpoint({
    ...paths.works.end,
    summary: 'Say how the work ended',
    params: numberParams,
    body: z.object({ version: z.number().int(), outcome: z.enum(WORK_OUTCOMES), words: textSchema(4_000) }),
    answer: versioned,
  }),
  review: endpoint({
    ...paths.works.review,
    summary: 'Write what was learned of the work',
    params: numberParams,
    body: z.object({ version: z.number().int(), review: textSchema(WORK_LIMITS.review) }),
    answer: versioned,
  }),
  beside: endpoint({
    ...paths.works.beside,
    summary: 'The changes that a ticket may come of: within two days, at its things or what they hang on',
    params: numberParams,
    answer: z.array(workCardSchema.extend({ things: z.array(thingRefSchema) })),
  }),
  createFreeze: endpoint({
    ...paths.works.createFreeze,
    summary: 'Keep a stretch free of changes',
    body: freezeBodySchema,
    answer: z.object({ id: idSchema }),
  }),
  updateFreeze: endpoint({
    ...paths.works.updateFreeze,
    summary: 'Change a stretch that is kept free of changes',
    params: idParams,
    body: freezeBodySchema.extend({ version: z.number().int() }),
    answer: versioned,
  }),
  removeFreeze: endpoint({
    ...paths.works.removeFreeze,
    summary: 'Let changes be again in a stretch',
    params: idParams,
    answer: okSchema,
  }),
  makeFeed: endpoint({
    ...paths.works.makeFeed,
    isForPeople: true,
    summary: 'An address of the calendar of work to subscribe to; the one before it ends',
    answer: z.object({ address: z.string() }),
  }),
};
