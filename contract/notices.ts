import * as z from 'zod';
import { NOTICE_KINDS, NOTICE_LIMITS, NOTICE_STATES } from '../core/notices';
import { TICKET_STATES } from '../core/tickets';
import { MOST_AT_ONCE } from './bulk';
import { endpoint } from './endpoint';
import { thingRefSchema } from './estate';
import { paths } from './paths';
import { audienceSchema } from './services';
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
const limited = (limit: number) => z.string().max(limit, { error: 'tooLong' });
const both = (limit: number) => z.object({ en: limited(limit), pt: limited(limit) });
const versioned = z.object({ version: z.number().int() });

const updateSchema = z.object({
  id: idSchema,
  at: instantSchema,
  kind: z.enum(['opened', 'update', 'ended']),
  words: localTextSchema,
  byName: z.string(),
});
/** Words of a notice, as they were sent at an instant. */
export type NoticeUpdate = z.infer<typeof updateSchema>;

/** A notice as those read it whom it concerns. */
export const readerNoticeSchema = z.object({
  id: idSchema,
  kind: z.enum(NOTICE_KINDS),
  state: z.enum(NOTICE_STATES),
  title: localTextSchema,
  /** What there is to do meanwhile. */
  words: localTextSchema,
  fromAt: instantSchema,
  untilAt: instantSchema.nullable(),
  endedAt: instantSchema.nullable(),
  /** It goes on for longer than was said. */
  isLonger: z.boolean(),
  isMajor: z.boolean(),
  /** The newest first, without the words that it began with. */
  updates: z.array(updateSchema.omit({ byName: true })),
  /** How many have said that they have it too. */
  followers: countSchema,
  isFollowed: z.boolean(),
  /** One's own ticket that is tied to it. */
  ownTicket: z.number().int().nullable(),
  /** How well it fits what one writes, from 0 to 1. */
  fit: z.number(),
});
/** A notice as those read it whom it concerns. */
export type ReaderNotice = z.infer<typeof readerNoticeSchema>;

/** A notice as lists at the Desk show it. */
export const noticeCardSchema = z.object({
  id: idSchema,
  kind: z.enum(NOTICE_KINDS),
  state: z.enum(NOTICE_STATES),
  title: localTextSchema,
  fromAt: instantSchema,
  untilAt: instantSchema.nullable(),
  endedAt: instantSchema.nullable(),
  isLonger: z.boolean(),
  isMajor: z.boolean(),
  isPublic: z.boolean(),
  lead: personRefSchema.nullable(),
  teamId: idSchema,
  tickets: countSchema,
  followers: countSchema,
});
/** A notice as lists at the Desk show it. */
export type NoticeCard = z.infer<typeof noticeCardSchema>;

/** A notice as it is written. */
export const noticeBodySchema = z.object({
  kind: z.enum(NOTICE_KINDS),
  title: both(NOTICE_LIMITS.title),
  words: both(NOTICE_LIMITS.words),
  /** What only those at the Desk read. */
  forAgents: limited(NOTICE_LIMITS.forAgents),
  audience: audienceSchema,
  serviceIds: z.array(idSchema).max(50),
  thingIds: z.array(idSchema).max(200),
  teamId: idSchema,
  fromAt: instantSchema,
  untilAt: instantSchema.nullable(),
  /** Whether it stands on the page that is read without signing in. */
  isPublic: z.boolean(),
  isMajor: z.boolean(),
  leadId: idSchema.nullable(),
});
/** A notice as it is written. */
export type NoticeBody = z.infer<typeof noticeBodySchema>;

const tiedSchema = z.object({
  number: z.number().int(),
  title: z.string(),
  state: z.enum(TICKET_STATES),
  requester: personRefSchema,
  at: instantSchema,
});
const pointSchema = z.object({
  at: instantSchema,
  kind: z.enum(['began', 'told', 'tied', 'taken', 'said', 'ended', 'lead']),
  count: countSchema,
  by: z.string().nullable(),
  words: z.string(),
});

/** A notice with all that is known of it. */
export const noticeSchema = noticeCardSchema.extend(noticeBodySchema.shape).extend({
  version: z.number().int(),
  createdAt: instantSchema,
  calledBackAt: instantSchema.nullable(),
  by: personRefSchema,
  team: localTextSchema,
  things: z.array(thingRefSchema),
  services: z.array(z.object({ id: idSchema, title: localTextSchema })),
  ofTicket: z.number().int().nullable(),
  ofWork: z.number().int().nullable(),
  updates: z.array(updateSchema),
  tied: z.array(tiedSchema),
  openTickets: countSchema,
  people: countSchema,
  sites: countSchema,
  /** How many people it concerns today. */
  reach: countSchema,
  mayChange: z.boolean(),
  mayCallBack: z.boolean(),
  line: z.array(pointSchema),
  review: z.string(),
});
/** A notice with all that is known of it. */
export type Notice = z.infer<typeof noticeSchema>;

/** Calls about notices. */
export const noticeEndpoints = {
  mine: endpoint({
    ...paths.notices.mine,
    summary: 'The notices that concern me now, those that fit what I write first',
    query: z.object({
      q: z.string().max(400).default(''),
      service: idSchema.optional(),
      for: idSchema.optional(),
    }),
    answer: z.array(readerNoticeSchema),
  }),
  open: endpoint({
    ...paths.notices.open,
    summary: 'The notices that everyone may read, without signing in',
    isOpen: true,
    answer: z.array(
      readerNoticeSchema.omit({ isFollowed: true, ownTicket: true, fit: true, followers: true }),
    ),
  }),
  list: endpoint({
    ...paths.notices.list,
    summary: 'Notices, the newest first',
    query: z.object({ only: z.enum(['now', 'past']).default('now') }),
    answer: z.array(noticeCardSchema),
  }),
  reach: endpoint({
    ...paths.notices.reach,
    isReading: true,
    summary: 'How many people a notice would concern, and whether it can go as it is written',
    body: noticeBodySchema.pick({ audience: true }),
    answer: z.object({ people: countSchema }),
  }),
  create: endpoint({
    ...paths.notices.create,
    summary: 'Publish a notice',
    body: noticeBodySchema.extend({
      ofTicket: z.number().int().positive().nullable().default(null),
      ofWork: z.number().int().positive().nullable().default(null),
      /** Tickets that are tied to it at once. */
      numbers: z.array(z.number().int().positive()).max(MOST_AT_ONCE).default([]),
    }),
    answer: z.object({ id: idSchema }),
  }),
  get: endpoint({
    ...paths.notices.get,
    summary: 'A notice with all that is known of it',
    params: idParams,
    answer: noticeSchema,
  }),
  update: endpoint({
    ...paths.notices.update,
    summary: 'Change what a notice is about and whom it concerns; nobody is told',
    params: idParams,
    body: noticeBodySchema.extend({ version: z.number().int() }),
    answer: versioned,
  }),
  say: endpoint({
    ...paths.notices.say,
    summary: 'Tell everyone who is tied to a notice or follows it how it goes on, once',
    params: idParams,
    body: z.object({
      version: z.number().int(),
      words: both(NOTICE_LIMITS.words),
      untilAt: instantSchema.nullable(),
    }),
    answer: versioned,
  }),
  end: endpoint({
    ...paths.notices.end,
    summary: 'Say that it is over, and let its tickets be done with it or be left to be confirmed one by one',
    params: idParams,
    body: z.object({
      version: z.number().int(),
      words: both(NOTICE_LIMITS.words),
      isFinishing: z.boolean(),
    }),
    answer: versioned.extend({ jobId: idSchema.nullable() }),
  }),
  callBack: endpoint({
    ...paths.notices.callBack,
    summary: 'Call a notice back, within a minute',
    params: idParams,
    answer: okSchema,
  }),
  review: endpoint({
    ...paths.notices.review,
    summary: 'Write what was learned, once it is over',
    params: idParams,
    body: z.object({ version: z.number().int(), review: limited(NOTICE_LIMITS.review) }),
    answer: versioned,
  }),
  follow: endpoint({
    ...paths.notices.follow,
    summary: 'Have it too, and hear how it goes on, without a ticket; or no longer',
    params: idParams,
    body: z.object({ isFollowed: z.boolean() }),
    answer: okSchema,
  }),
  tie: endpoint({
    ...paths.notices.tie,
    summary: 'Tie tickets to a notice; very many in the background',
    params: idParams,
    body: z.object({ numbers: z.array(z.number().int().positive()).min(1).max(MOST_AT_ONCE) }),
    answer: z.object({ jobId: idSchema.nullable() }),
  }),
  untie: endpoint({
    ...paths.notices.untie,
    summary: 'Take a ticket off a notice',
    params: idParams.extend(numberParams.shape),
    answer: okSchema,
  }),
  serviceTime: endpoint({
    ...paths.notices.serviceTime,
    summary:
      'How long a thing did not work by its notices, against the hours that are promised of it, by month',
    params: idParams,
    query: z.object({ months: z.coerce.number().int().min(1).max(24).default(6) }),
    answer: z.object({
      /** The hours that are promised; null: always. */
      calendarId: idSchema.nullable(),
      /** The newest first. Durations are working ms; `share` is the part of the promised time that was kept. */
      months: z.array(
        z.object({
          from: instantSchema,
          promised: z.number(),
          lost: z.number(),
          share: z.number(),
          failures: countSchema,
          betweenFailures: z.number().nullable(),
          toRestore: z.number().nullable(),
          notices: z.array(z.object({ id: idSchema, title: localTextSchema })),
        }),
      ),
      maySet: z.boolean(),
    }),
  }),
  setPromised: endpoint({
    ...paths.notices.setPromised,
    summary: 'Say by which calendar a thing is promised to work',
    params: idParams,
    body: z.object({ calendarId: idSchema.nullable() }),
    answer: okSchema,
  }),
  ofTicket: endpoint({
    ...paths.notices.ofTicket,
    summary: 'The notices that a ticket is tied to, and those that fit it',
    params: numberParams,
    answer: z.object({ tied: z.array(noticeCardSchema), fitting: z.array(noticeCardSchema) }),
  }),
};
