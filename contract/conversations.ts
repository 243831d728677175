import * as z from 'zod';
import { CONVERSATION_ENTRY_KINDS, type ConversationFacts, CONVERSATION_STATES } from '../core/conversations';
import { endpoint } from './endpoint';
import { fileSchema } from './files';
import { paths } from './paths';
import { ALERTS, CHAT_PRESENCES, OFFER_FACTS } from './talkNames';
import {
  idParams,
  idSchema,
  instantSchema,
  localTextSchema,
  okSchema,
  personRefSchema,
  textSchema,
} from './shared';

const WORDS_LIMIT = 8_000;

/** In minutes: on average, and so that four of five wait less; null: nobody is there to say. */
const waitSchema = z.object({ mean: z.number(), most: z.number() }).nullable();

const lineSchema = z.object({
  id: idSchema,
  name: localTextSchema,
  about: localTextSchema,
  isOpen: z.boolean(),
  /** When the team is at work again. */
  opensAt: instantSchema.nullable(),
  closedWords: localTextSchema,
  serviceId: idSchema.nullable(),
  waiting: z.number().int(),
  wait: waitSchema,
});
/** A line in which one can wait for a person. */
export type LineCard = z.infer<typeof lineSchema>;

const entrySchema = z.object({
  place: z.number().int(),
  at: instantSchema,
  author: personRefSchema.nullable(),
  type: z.enum(CONVERSATION_ENTRY_KINDS),
  readBy: z.enum(['all', 'agents']),
  text: z.string(),
  data: z.record(z.string(), z.unknown()) as unknown as z.ZodType<ConversationFacts>,
  files: z.array(fileSchema),
});
/** Something that was said or happened in a conversation. */
export type ConversationEntry = z.infer<typeof entrySchema>;

const ticketSchema = z.object({ number: z.number().int(), title: z.string(), state: z.string() });

/** A conversation that someone had before, by how it began. */
export const pastConversationSchema = z.object({
  id: idSchema,
  at: instantSchema,
  words: z.string(),
  ticketNumber: z.number().nullable(),
  rating: z.number().int().nullable(),
});
/** A conversation that is over, by how it began. */
export type PastConversation = z.infer<typeof pastConversationSchema>;

/** A conversation as its reader may see it; `side` is the agents' own. */
export const conversationSchema = z.object({
  id: idSchema,
  state: z.enum(CONVERSATION_STATES),
  person: personRefSchema,
  line: z.object({ id: idSchema, name: localTextSchema, serviceId: idSchema.nullable() }),
  agent: personRefSchema.nullable(),
  startedAt: instantSchema,
  endedAt: instantSchema.nullable(),
  endedBy: z.string().nullable(),
  /** Those before in the line, and how long it will take. */
  ahead: z.number().int(),
  wait: waitSchema,
  whoWaits: z.object({ who: z.enum(['person', 'agent']), since: instantSchema }),
  mayComeBack: z.boolean(),
  rating: z.number().int().nullable(),
  ticket: ticketSchema.nullable(),
  entries: z.array(entrySchema),
  /** For agents: what is offered, by whom handed on and why, who else is in it. */
  side: z
    .object({
      isMine: z.boolean(),
      isOfferedToMe: z.boolean(),
      handedBy: z.string().nullable(),
      handedWhy: z.string().nullable(),
      assetTag: z.string().nullable(),
      invited: z.array(personRefSchema),
      openTickets: z.array(ticketSchema),
      before: z.array(pastConversationSchema),
    })
    .nullable(),
  version: z.number().int(),
});
/** A conversation as its reader may see it; `side` is the agents' own. */
export type Conversation = z.infer<typeof conversationSchema>;

const shortSchema = z.object({
  id: idSchema,
  state: z.enum(CONVERSATION_STATES),
  person: personRefSchema,
  line: localTextSchema,
  agent: z.string().nullable(),
  isMine: z.boolean(),
  isOfferedToMe: z.boolean(),
  offeredUntil: instantSchema.nullable(),
  handedBy: z.string().nullable(),
  since: instantSchema,
  whoWaits: z.object({ who: z.enum(['person', 'agent']), since: instantSchema }),
  lastWords: z.string(),
  facts: z.record(z.string(), z.string()),
});
/** A conversation as the Desk lists it. */
export type ConversationShort = z.infer<typeof shortSchema>;

const agentSchema = z.object({
  presence: z.enum(CHAT_PRESENCES),
  capacity: z.number().int().min(1).max(12),
  alert: z.enum(ALERTS),
});
/** Whether an agent takes conversations, and how many at once. */
export type ChatAgent = z.infer<typeof agentSchema>;

const overviewSchema = z.object({
  lines: z.array(
    z.object({
      ...{
        id: idSchema,
        name: localTextSchema,
        waiting: z.number().int(),
        longest: instantSchema.nullable(),
      },
      ...{ wait: waitSchema, agents: z.number().int() },
      /** Of today. */
      today: z.object({
        ...{ taken: z.number().int(), abandoned: z.number().int(), meanWait: z.number().nullable() },
        ...{ meanHandling: z.number().nullable(), rating: z.number().nullable() },
      }),
    }),
  ),
  agents: z.array(
    z.object({
      ...{ id: idSchema, name: z.string(), presence: z.string(), isHere: z.boolean() },
      ...{ load: z.number().int(), capacity: z.number().int(), taken: z.number().int() },
      meanHandling: z.number().nullable(),
    }),
  ),
});
/** Lines and agents as their lead sees them now; spans in minutes. */
export type ChatOverview = z.infer<typeof overviewSchema>;

const lineFields = {
  ...{ name: localTextSchema, about: localTextSchema, closedWords: localTextSchema, teamId: idSchema },
  ...{ skill: z.string().max(60).nullable(), serviceId: idSchema.nullable(), isOn: z.boolean() },
  facts: z.array(z.enum(OFFER_FACTS)),
  offerSeconds: z.number().int().min(10).max(600),
  askAfter: z.number().int().min(1).max(120),
  endAfter: z.number().int().min(1).max(240),
};
const lineSetUpSchema = z.object({
  id: idSchema,
  ...lineFields,
  mayEdit: z.boolean(),
  version: z.number().int(),
});
/** A line as it is set up. */
export type LineSetUp = z.infer<typeof lineSetUpSchema>;

/** Calls about live conversations. */
export const conversationEndpoints = {
  lines: endpoint({
    ...paths.conversations.lines,
    summary: 'The lines in which one can wait for a person, whether they are open, and how long it takes',
    answer: z.array(lineSchema),
  }),
  mine: endpoint({
    ...paths.conversations.mine,
    summary: 'My conversation that is under way, or the last of today that I can come back to',
    answer: z.object({
      id: idSchema.nullable(),
      /** Whether there is a line in which one can wait for a person. */
      hasLines: z.boolean(),
      agent: z.string().nullable(),
      /** How much agents have said to me in it so far. */
      said: z.number().int(),
    }),
  }),
  start: endpoint({
    ...paths.conversations.start,
    summary: 'Ask for a person',
    body: z.object({
      lineId: idSchema,
      words: textSchema(WORDS_LIMIT),
      from: z.string().max(200).default(''),
    }),
    answer: z.object({ id: idSchema }),
  }),
  get: endpoint({
    ...paths.conversations.get,
    summary: 'A conversation as I may read it',
    params: idParams,
    answer: conversationSchema,
  }),
  say: endpoint({
    ...paths.conversations.say,
    summary: 'Say something in it, to all or among agents',
    params: idParams,
    body: z.object({
      text: textSchema(WORDS_LIMIT).or(z.literal('')),
      readBy: z.enum(['all', 'agents']).default('all'),
      fileIds: z.array(idSchema).max(10).default([]),
    }),
    answer: okSchema,
  }),
  writing: endpoint({
    ...paths.conversations.writing,
    summary: 'Say that I am writing',
    params: idParams,
    body: z.object({ readBy: z.enum(['all', 'agents']).default('all') }),
    answer: okSchema,
  }),
  end: endpoint({ ...paths.conversations.end, summary: 'End it', params: idParams, answer: okSchema }),
  comeBack: endpoint({
    ...paths.conversations.comeBack,
    summary: 'Come back to it within the day',
    params: idParams,
    answer: okSchema,
  }),
  rate: endpoint({
    ...paths.conversations.rate,
    summary: 'Say how it was',
    params: idParams,
    body: z.object({ rating: z.number().int().min(1).max(5), word: z.string().max(1000).default('') }),
    answer: okSchema,
  }),
  atDesk: endpoint({
    ...paths.conversations.atDesk,
    summary: 'What is offered to me, what I have, and what waits in my lines',
    answer: z.object({ agent: agentSchema, rows: z.array(shortSchema) }),
  }),
  setAgent: endpoint({
    ...paths.conversations.setAgent,
    summary: 'Whether I take conversations, how many at once, and how I am alerted',
    body: agentSchema.partial(),
    answer: okSchema,
  }),
  accept: endpoint({
    ...paths.conversations.accept,
    summary: 'Take it: the first who does has it',
    params: idParams,
    answer: okSchema,
  }),
  decline: endpoint({
    ...paths.conversations.decline,
    summary: 'Let it pass: it is offered on',
    params: idParams,
    answer: okSchema,
  }),
  handOver: endpoint({
    ...paths.conversations.handOver,
    summary: 'Hand it over to an agent or a line, with a word on why',
    params: idParams,
    body: z.object({ agentId: idSchema.nullable(), lineId: idSchema.nullable(), why: textSchema(500) }),
    answer: okSchema,
  }),
  invite: endpoint({
    ...paths.conversations.invite,
    summary: 'Ask a colleague in',
    params: idParams,
    body: z.object({ personId: idSchema }),
    answer: okSchema,
  }),
  device: endpoint({
    ...paths.conversations.device,
    summary: 'Tie the device that was confirmed by its tag',
    params: idParams,
    body: z.object({ tag: textSchema(60) }),
    answer: okSchema,
  }),
  ticket: endpoint({
    ...paths.conversations.ticket,
    summary: 'Make a ticket of it, or tie it to one',
    params: idParams,
    body: z.object({
      number: z.number().int().nullable().default(null),
      serviceId: idSchema.nullable().default(null),
      title: z.string().max(255).default(''),
    }),
    answer: z.object({ number: z.number().int() }),
  }),
  overview: endpoint({
    ...paths.conversations.overview,
    summary: 'Lines, waits, those who left, handling times, agents and their load, as things are now',
    answer: overviewSchema,
  }),
  setUp: endpoint({
    ...paths.conversations.setUp,
    summary: 'The lines as they are set up',
    answer: z.array(lineSetUpSchema),
  }),
  saveLine: endpoint({
    ...paths.conversations.saveLine,
    summary: 'Set up a line; version 0 makes it',
    params: idParams,
    body: z.object({ ...lineFields, version: z.number().int() }),
    answer: z.object({ version: z.number().int() }),
  }),
};
