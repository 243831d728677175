import * as z from 'zod';
import { THING_ACTS, THING_STATES, THING_TEXT_LIMITS } from '../core/estate';
import { TICKET_STATES } from '../core/tickets';
import { endpoint } from './endpoint';
import { THING_CLAIMS, TIES } from './estateNames';
import { answeredSchema } from './forms';
import { paths } from './paths';
import { kindBodySchema, thingKindSchema } from './thingKinds';
import {
  idParams,
  idSchema,
  instantSchema,
  localTextSchema,
  numberParams,
  okSchema,
  personRefSchema,
} from './shared';

const countSchema = z.number().int().nonnegative();
const versioned = z.object({ version: z.number().int() });
const limited = (limit: number) => z.string().max(limit, { error: 'tooLong' });
const daySchema = z.string().max(20).nullable();

const standingSchema = z.enum(['up', 'weakened', 'down']);
/** A thing by its name, with how it stands. */
export const thingRefSchema = z.object({
  id: idSchema,
  name: z.string(),
  kind: localTextSchema,
  state: z.enum(THING_STATES),
  standing: standingSchema,
});
/** A thing by its name. */
export type ThingRef = z.infer<typeof thingRefSchema>;

const placeRefSchema = z.object({ id: idSchema, name: z.string() });
/** A thing as lists show it. */
export const thingCardSchema = z.object({
  id: idSchema,
  name: z.string(),
  tag: z.string(),
  serial: z.string(),
  model: z.string(),
  kindId: idSchema,
  kind: localTextSchema,
  state: z.enum(THING_STATES),
  holder: personRefSchema.nullable(),
  site: placeRefSchema.nullable(),
  place: z.string(),
  vessel: z.string(),
  warrantyUntil: z.string().nullable(),
  lentUntil: instantSchema.nullable(),
  isWatched: z.boolean(),
  openTickets: countSchema,
  /** What its holder says of it that nobody has dealt with yet. */
  claim: z.enum(THING_CLAIMS).nullable(),
});
/** A thing as lists show it. */
export type ThingCard = z.infer<typeof thingCardSchema>;

/** A thing as it is written. Days are ISO 8601, cost is cents. */
export const thingBodySchema = z.object({
  name: limited(THING_TEXT_LIMITS.name),
  tag: limited(THING_TEXT_LIMITS.tag),
  serial: limited(THING_TEXT_LIMITS.serial),
  model: limited(THING_TEXT_LIMITS.model),
  kindId: idSchema,
  ownerId: idSchema.nullable(),
  siteId: idSchema.nullable(),
  place: limited(THING_TEXT_LIMITS.place),
  vessel: limited(THING_TEXT_LIMITS.vessel),
  teamId: idSchema.nullable(),
  cost: z.number().nullable(),
  boughtOn: daySchema,
  warrantyUntil: daySchema,
  contract: limited(THING_TEXT_LIMITS.contract),
  isWatched: z.boolean(),
  dependable: z.number().nullable(),
  fields: z.record(z.string().max(40), z.unknown()),
});
/** A thing as it is written. */
export type ThingBody = z.infer<typeof thingBodySchema>;

const historySchema = z.object({
  at: instantSchema,
  byName: z.string().nullable(),
  type: z.enum(['thingMade', 'thingChanged', 'thingActed', 'thingNeeds', 'thingSaid', 'thingsCounted']),
  act: z.enum(THING_ACTS).nullable(),
  claim: z.enum(THING_CLAIMS).nullable(),
  changes: z.array(z.object({ field: z.string(), from: z.unknown(), to: z.unknown() })),
});
/** Something that happened to a thing. */
export type ThingHistory = z.infer<typeof historySchema>;

const thingTicketSchema = z.object({
  number: z.number().int(),
  title: z.string(),
  state: z.enum(TICKET_STATES),
  at: instantSchema,
  how: z.enum(TIES),
});

/** A thing with all that is known of it. */
export const thingSchema = thingCardSchema.extend(thingBodySchema.shape).extend({
  version: z.number().int(),
  owner: personRefSchema.nullable(),
  team: z.object({ id: idSchema, name: localTextSchema }).nullable(),
  answers: z.array(answeredSchema),
  mayKeep: z.boolean(),
  isHandedOut: z.boolean(),
  acts: z.array(z.enum(THING_ACTS)),
  /** Since when its holder has it, and when they said so. */
  handedAt: instantSchema.nullable(),
  confirmedAt: instantSchema.nullable(),
  /** When it was last seen: by an inventory, or by somebody with a scanner. */
  seenAt: instantSchema.nullable(),
  /** What it is still worth, in cents; null: not known. */
  worth: z.number().int().nullable(),
  tickets: z.array(thingTicketSchema),
  ticketCount: countSchema,
  history: z.array(historySchema),
});
/** A thing with all that is known of it. */
export type Thing = z.infer<typeof thingSchema>;

/** What a thing needs to work: so many of these. */
const needSchema = z.object({ atLeast: countSchema, of: z.array(thingRefSchema), isMet: z.boolean() });

/** What hangs on a thing, and what it hangs on. */
export const hangsSchema = z.object({
  standing: standingSchema,
  needs: z.array(needSchema),
  neededBy: z.array(thingRefSchema),
  neededByCount: countSchema,
  /** What would fall with it; the nearest first, so many of them by name. */
  falls: z.object({
    down: z.array(thingRefSchema),
    downCount: countSchema,
    weakened: z.array(thingRefSchema),
    weakenedCount: countSchema,
    /** The watched ones of those that would fall. */
    watched: z.array(thingRefSchema),
    people: countSchema,
  }),
  /** Whatever takes it down alone. */
  alone: z.array(thingRefSchema),
  /** Which part of the time it works, given what it stands on; null: not asked for, or too entangled to be exact. */
  availability: z.number().nullable(),
  isTooEntangled: z.boolean(),
});
/** What hangs on a thing, and what it hangs on. */
export type Hangs = z.infer<typeof hangsSchema>;

const mapThingSchema = thingRefSchema.extend({
  place: z.string(),
  isWatched: z.boolean(),
  openTickets: countSchema,
});
/** A piece of the map. */
export const thingMapSchema = z.object({
  things: z.array(mapThingSchema),
  needs: z.array(z.object({ thing: idSchema, atLeast: countSchema, of: z.array(idSchema) })),
  /** Whether there is more than was drawn. */
  isCut: z.boolean(),
});
/** A piece of the map. */
export type ThingMap = z.infer<typeof thingMapSchema>;

/** A thing that somebody has. */
const ownThingSchema = z.object({
  id: idSchema,
  name: z.string(),
  kind: localTextSchema,
  tag: z.string(),
  model: z.string(),
  serial: z.string(),
  state: z.enum(THING_STATES),
  lentUntil: instantSchema.nullable(),
  warrantyUntil: z.string().nullable(),
  /** Whether they are asked if they have it. */
  isAsked: z.boolean(),
  claim: z.enum(THING_CLAIMS).nullable(),
  handedAt: instantSchema.nullable(),
  openTickets: z.array(z.object({ number: z.number().int(), title: z.string() })),
});
/** A thing that somebody has. */
export type OwnThing = z.infer<typeof ownThingSchema>;

/** A thing on a ticket: what is known of it beside. */
export const thingOnTicketSchema = thingCardSchema.extend({
  how: z.enum(TIES),
  /** Whether the form asked for it: then it is changed there. */
  isAnswer: z.boolean(),
  contract: z.string(),
  standing: standingSchema,
  needs: z.array(thingRefSchema),
  neededBy: z.array(thingRefSchema),
  downCount: countSchema,
  tickets: z.array(thingTicketSchema),
  ticketCount: countSchema,
});
/** A thing on a ticket. */
export type ThingOnTicket = z.infer<typeof thingOnTicketSchema>;

const batchSchema = z.object({
  model: z.string(),
  all: countSchema,
  failed: countSchema,
  low: z.number(),
  high: z.number(),
  isBad: z.boolean(),
});
const sumSchema = z.object({ name: z.string(), count: countSchema, cost: z.number(), worth: z.number() });

/** Figures over things. Money is cents. */
export const estateFiguresSchema = z.object({
  count: countSchema,
  cost: z.number(),
  worth: z.number(),
  byDepartment: z.array(sumSchema),
  /** How many were bought in each year. */
  byYear: z.array(sumSchema),
  batches: z.array(batchSchema),
  /** What runs out within 90 days. */
  expiring: z.array(thingCardSchema),
});
/** Figures over things. */
export type EstateFigures = z.infer<typeof estateFiguresSchema>;

/** How many things are worth a look, of those that one sees. */
const attentionSchema = z.object({
  claimed: countSchema,
  overdue: countSchema,
  unseen: countSchema,
  warranty: countSchema,
});

const narrowing = {
  q: z.string().max(100).default(''),
  kindId: idSchema.optional(),
  state: z.enum(THING_STATES).optional(),
  siteId: idSchema.optional(),
  holderId: idSchema.optional(),
  /** Those of which a holder says something, those lent beyond their day, those that nobody has seen for 90 days. */
  only: z.enum(['claimed', 'overdue', 'unseen', 'watched', 'warranty']).optional(),
};

/** Calls about things and what hangs on them. */
export const estateEndpoints = {
  list: endpoint({
    ...paths.estate.list,
    summary: 'Things by name, a page at a time',
    query: z.object({ ...narrowing, after: z.string().max(400).optional() }),
    answer: z.object({
      rows: z.array(thingCardSchema),
      after: z.string().nullable(),
      count: countSchema,
      attention: attentionSchema,
    }),
  }),
  create: endpoint({
    ...paths.estate.create,
    summary: 'Make a thing',
    body: thingBodySchema.extend({ state: z.enum(['ordered', 'inStore', 'inUse']) }),
    answer: z.object({ id: idSchema }),
  }),
  get: endpoint({
    ...paths.estate.get,
    summary: 'A thing with all that is known of it',
    params: idParams,
    answer: thingSchema,
  }),
  update: endpoint({
    ...paths.estate.update,
    summary: 'Change what is known of a thing',
    params: idParams,
    body: thingBodySchema.extend({ version: z.number().int() }),
    answer: versioned,
  }),
  act: endpoint({
    ...paths.estate.act,
    summary: 'Hand over, lend, take back, send to repair, retire …',
    params: idParams,
    body: z.object({
      version: z.number().int(),
      act: z.enum(THING_ACTS),
      holderId: idSchema.nullable().default(null),
      lentUntil: instantSchema.nullable().default(null),
    }),
    answer: versioned,
  }),
  settle: endpoint({
    ...paths.estate.settle,
    summary: 'Say that what a holder said of a thing is dealt with',
    params: idParams,
    body: z.object({ version: z.number().int() }),
    answer: versioned,
  }),
  setNeeds: endpoint({
    ...paths.estate.setNeeds,
    summary: 'Say what a thing needs to work',
    params: idParams,
    body: z.object({
      version: z.number().int(),
      needs: z.array(z.object({ atLeast: countSchema, of: z.array(idSchema).min(1).max(200) })).max(50),
    }),
    answer: versioned,
  }),
  hangs: endpoint({
    ...paths.estate.hangs,
    summary: 'What hangs on a thing, what it hangs on, and what would fall with it',
    params: idParams,
    answer: hangsSchema,
  }),
  map: endpoint({
    ...paths.estate.map,
    summary: 'The map around a thing',
    params: idParams,
    query: z.object({
      way: z.enum(['below', 'above', 'both']).default('both'),
      depth: z.coerce.number().int().min(1).max(20).default(3),
    }),
    answer: thingMapSchema,
  }),
  byMark: endpoint({
    ...paths.estate.byMark,
    summary: 'The things that a scanned code or a tag names',
    query: z.object({ mark: z.string().min(1).max(80) }),
    answer: z.array(thingCardSchema),
  }),
  choices: endpoint({
    ...paths.estate.choices,
    summary: 'Things that a request can be about: own first, then those of where one works',
    query: z.object({
      q: z.string().max(100).default(''),
      kind: idSchema.optional(),
      for: idSchema.optional(),
    }),
    answer: z.array(
      z.object({
        id: idSchema,
        kind: idSchema,
        name: z.string(),
        /** Whose it is to the one who asks: their own, of where they work, or another's. */
        whose: z.enum(['own', 'near', 'other']),
      }),
    ),
  }),
  mine: endpoint({
    ...paths.estate.mine,
    summary: 'What I have',
    answer: z.array(ownThingSchema),
  }),
  say: endpoint({
    ...paths.estate.say,
    summary: 'Say of something that I have: I have it, I never got it, it is broken, lost, given back',
    params: idParams,
    body: z.object({
      say: z.enum(['have', 'haveNot', 'broken', 'lost', 'returned']),
      words: limited(2_000).default(''),
    }),
    answer: z.object({ number: z.number().int().nullable() }),
  }),
  kinds: endpoint({
    ...paths.estate.kinds,
    summary: 'The kinds of things',
    answer: z.array(thingKindSchema),
  }),
  createKind: endpoint({
    ...paths.estate.createKind,
    summary: 'Make a kind of things',
    body: kindBodySchema,
    answer: z.object({ id: idSchema }),
  }),
  updateKind: endpoint({
    ...paths.estate.updateKind,
    summary: 'Change a kind of things',
    params: idParams,
    body: kindBodySchema.extend({ version: z.number().int() }),
    answer: versioned,
  }),
  count: endpoint({
    ...paths.estate.count,
    summary: 'Take stock of a place: what is missing there, and what is there and should not be',
    body: z.object({
      siteId: idSchema,
      place: limited(THING_TEXT_LIMITS.place).default(''),
      marks: z.array(z.string().min(1).max(80)).max(2_000),
      /** Whether what was scanned is noted as seen, there. */
      isKept: z.boolean(),
    }),
    answer: z.object({
      here: z.array(thingCardSchema),
      missing: z.array(thingCardSchema),
      strangers: z.array(thingCardSchema),
      unknown: z.array(z.string()),
      several: z.array(z.string()),
    }),
  }),
  figures: endpoint({
    ...paths.estate.figures,
    summary: 'Cost, worth, age and failures of things',
    query: z.object({ kindId: idSchema.optional() }),
    answer: estateFiguresSchema,
  }),
  ofTicket: endpoint({
    ...paths.estate.ofTicket,
    summary: 'The things of a ticket, with what is known of each',
    params: numberParams,
    answer: z.array(thingOnTicketSchema),
  }),
  tie: endpoint({
    ...paths.estate.tie,
    summary: 'Say that a ticket is about a thing, or caused by it',
    params: numberParams,
    body: z.object({ thingId: idSchema, how: z.enum(TIES) }),
    answer: okSchema,
  }),
  untie: endpoint({
    ...paths.estate.untie,
    summary: 'Take a thing off a ticket',
    params: z.object({ number: z.coerce.number().int().positive(), thingId: idSchema }),
    answer: okSchema,
  }),
};
