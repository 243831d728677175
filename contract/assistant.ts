import * as z from 'zod';
import { MOST_LEVELS, type MatterStep } from '../core/assistant';
import { foundArticleSchema } from './knowledge';
import { endpoint } from './endpoint';
import { paths } from './paths';
import { idParams, idSchema, instantSchema, languageSchema, okSchema, personRefSchema } from './shared';

const words = (limit: number) => z.object({ en: z.string().max(limit), pt: z.string().max(limit) });

const askSchema = z.object({
  kind: z.literal('ask'),
  text: words(500),
  field: idSchema,
  choices: z.array(words(100)).max(12),
});
const simpleSteps = [
  z.object({ kind: z.literal('say'), text: words(2_000) }),
  z.object({ kind: z.literal('article'), articleId: idSchema }),
  z.object({ kind: z.enum(['form', 'state', 'ticket', 'approval', 'person', 'end']) }),
] as const;
const MOST_STEPS = 20;
/** Steps whose questions branch, so many levels deep. */
function stepOf(levels: number): z.ZodType<MatterStep> {
  if (levels === 0) return z.discriminatedUnion('kind', [askSchema, ...simpleSteps]);
  const branches = z
    .array(z.array(stepOf(levels - 1)).max(MOST_STEPS))
    .max(12)
    .optional();
  return z.discriminatedUnion('kind', [askSchema.extend({ branches }), ...simpleSteps]);
}
const stepSchema = stepOf(MOST_LEVELS);

const matterBodySchema = z.object({
  name: words(120),
  note: z.string().max(1_000),
  /** The words of the confirming question; empty: made from the name. */
  question: words(300),
  phrasings: z
    .array(z.object({ text: z.string().trim().min(1).max(300), language: languageSchema }))
    .max(200),
  serviceId: idSchema,
  isForAgents: z.boolean(),
  isOn: z.boolean(),
  steps: z.array(stepSchema).max(MOST_STEPS),
});
/** A matter as it is written. */
export type MatterBody = z.infer<typeof matterBodySchema>;
/** A matter as it is kept. */
export const matterSchema = matterBodySchema.extend({
  id: idSchema,
  version: z.number().int(),
  mayEdit: z.boolean(),
});
/** A matter as it is kept. */
export type MatterView = z.infer<typeof matterSchema>;

/** What stands in a conversation, as it was said. */
const turnSchema = z.object({
  place: z.number().int(),
  at: instantSchema,
  by: z.enum(['person', 'assistant']),
  say: z.enum([
    ...['words', 'greeting', 'confirm', 'choose', 'reword', 'passages', 'teams', 'again', 'glad'],
    ...['toldMasked', 'text', 'question', 'article', 'form', 'state', 'ticket', 'confidential'],
    ...['yes', 'no', 'none', 'person', 'stillThere', 'followUp', 'closed'],
    ...['waiting', 'agreed', 'notAgreed', 'both', 'other', 'hello', 'welcome', 'allSaid'],
  ] as [string, ...string[]]),
  text: z.string().optional(),
  /** The lead's own words in place of the usual ones. */
  words: z.string().optional(),
  choices: z.array(z.object({ id: z.string(), name: z.string() })).optional(),
  articles: z.array(foundArticleSchema).optional(),
  serviceId: idSchema.optional(),
  /** Services that are often asked for. */
  services: z.array(z.object({ id: idSchema, name: z.string() })).optional(),
  tickets: z.array(z.object({ number: z.number().int(), title: z.string(), state: z.string() })).optional(),
  number: z.number().int().optional(),
  isHandOver: z.boolean().optional(),
  /** How sure it was of what it took the words for; only for those who look after it. */
  likely: z.array(z.object({ name: z.string().nullable(), sureness: z.number() })).optional(),
});
/** Something that was said in a conversation with the assistant. */
export type TurnView = z.infer<typeof turnSchema>;

/** A conversation with the assistant. */
export const talkSchema = z.object({
  id: idSchema,
  phase: z.enum(['listen', 'confirm', 'choose', 'step', 'passages', 'teams', 'waiting', 'ended']),
  outcome: z.enum(['solved', 'ticket', 'handedOver', 'form', 'told', 'left']).nullable(),
  matter: z.string().nullable(),
  serviceId: idSchema.nullable(),
  /** What was answered, by field of the form; called as the form calls it. */
  fields: z.array(z.object({ name: z.string(), label: z.string(), value: z.string() })),
  rating: z.number().int().nullable(),
  /** What a ticket of it is called, or would be. */
  title: z.string().nullable(),
  /** The lead's own words at the end, if any. */
  closing: z.string().nullable(),
  turns: z.array(turnSchema),
});
/** A conversation with the assistant. */
export type TalkView = z.infer<typeof talkSchema>;

/** What the assistant greets, hands over, thanks and closes with; empty: its usual words. `{name}` is filled. */
const wordsSchema = z.object({
  greeting: words(500),
  handOver: words(500),
  thanks: words(500),
  /** What it comes back with after an hour of silence. */
  followUp: words(500),
  /** Whether it answers in Ask. */
  isOn: z.boolean(),
  closing: words(500),
  /** What it offers with its greeting. */
  greetsWith: z.array(z.object({ kind: z.enum(['article', 'service']), id: idSchema })).max(6),
  version: z.number().int(),
});
/** The words with which the assistant greets and ends. */
export type AssistantWords = z.infer<typeof wordsSchema>;

const inputSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('words'), text: z.string().trim().min(1).max(20_000) }),
  z.object({ kind: z.literal('pick'), id: idSchema }),
  z.object({ kind: z.literal('none') }),
  z.object({ kind: z.literal('helped'), helped: z.boolean() }),
  z.object({ kind: z.literal('team'), id: idSchema }),
  z.object({ kind: z.literal('person') }),
]);
/** What someone says or presses in a conversation. */
export type TalkInput = z.infer<typeof inputSchema>;

const recordSchema = z.object({
  offered: z.number(),
  held: z.number(),
  size: z.number(),
  single: z.number(),
});

/** Calls about the assistant and what it is taught. */
export const assistantEndpoints = {
  start: endpoint({
    ...paths.assistant.start,
    isForPeople: true,
    summary: 'Begin a conversation with the assistant, or go on with the one that is open',
    body: z.object({ isAnew: z.boolean().default(false) }),
    answer: talkSchema,
  }),
  say: endpoint({
    ...paths.assistant.say,
    isForPeople: true,
    summary: 'Say something in a conversation, or choose what is offered',
    params: idParams,
    body: z.object({ input: inputSchema }),
    answer: talkSchema,
  }),
  mine: endpoint({
    ...paths.assistant.mine,
    summary: 'A conversation of mine as it stands',
    params: idParams,
    answer: talkSchema,
  }),
  rate: endpoint({
    ...paths.assistant.rate,
    isForPeople: true,
    summary: 'Say how a conversation was',
    params: idParams,
    body: z.object({ rating: z.number().int().min(1).max(5) }),
    answer: okSchema,
  }),
  matters: endpoint({
    ...paths.assistant.matters,
    summary: 'All matters of the assistant',
    answer: z.array(matterSchema),
  }),
  create: endpoint({
    ...paths.assistant.create,
    summary: 'Add a matter; it is learned at once',
    body: matterBodySchema,
    answer: z.object({ id: idSchema }),
  }),
  update: endpoint({
    ...paths.assistant.update,
    summary: 'Change a matter; it is learned at once',
    params: idParams,
    body: matterBodySchema.extend({ version: z.number().int() }),
    answer: z.object({ version: z.number().int() }),
  }),
  understood: endpoint({
    ...paths.assistant.understood,
    summary: 'What words would be taken for',
    query: z.object({ q: z.string().max(500), language: languageSchema }),
    answer: z.object({
      kind: z.enum(['confirm', 'choose', 'both', 'unclear', 'reword']),
      /** The matters that it would offer. */
      ids: z.array(idSchema),
      likely: z.array(z.object({ name: z.string().nullable(), sureness: z.number() })),
    }),
  }),
  insight: endpoint({
    ...paths.assistant.insight,
    summary: 'How sure it may be: what is confused, what each wanted sureness would do, what was heard',
    answer: z.object({
      wanted: z.number(),
      choices: z.array(
        recordSchema.extend({
          wanted: z.number(),
          /** The same over past conversations that came to a matter or refused what was offered, by their first words. */
          past: recordSchema,
        }),
      ),
      /** Over how many of them. */
      pastTalks: z.number().int(),
      /** From so many of them on, they say how far offers go; before, the phrasings do. */
      leastTalks: z.number().int(),
      goesByTalks: z.boolean(),
      confusions: z.array(
        z.object({ name: z.string(), takenFor: z.string().nullable(), phrasings: z.array(z.string()) }),
      ),
      doubles: z.array(z.object({ text: z.string(), names: z.array(z.string()) })),
      heard: z.array(
        z.object({
          id: z.number().int(),
          text: z.string(),
          language: languageSchema,
          name: z.string(),
          isRight: z.boolean(),
          at: instantSchema,
        }),
      ),
    }),
  }),
  setWanted: endpoint({
    ...paths.assistant.setWanted,
    summary: 'Choose the wanted sureness',
    body: z.object({ wanted: z.number().min(0.5).max(0.99) }),
    answer: okSchema,
  }),
  judgeHeard: endpoint({
    ...paths.assistant.judgeHeard,
    summary: 'Take over a phrasing that was heard, or leave it',
    params: z.object({ id: z.coerce.number().int() }),
    body: z.object({ accept: z.boolean() }),
    answer: okSchema,
  }),
  words: endpoint({
    ...paths.assistant.words,
    summary: 'What the assistant greets, hands over, thanks and closes with',
    answer: wordsSchema,
  }),
  setWords: endpoint({
    ...paths.assistant.setWords,
    summary: 'Change what it greets, hands over, thanks and closes with',
    body: wordsSchema,
    answer: z.object({ version: z.number().int() }),
  }),
  figures: endpoint({
    ...paths.assistant.figures,
    summary: 'How good it is, by matter',
    query: z.object({ days: z.coerce.number().int().min(1).max(366).default(28) }),
    answer: z.object({
      talks: z.number().int(),
      understood: z.number().int(),
      alone: z.number().int(),
      handedOver: z.number().int(),
      rating: z.number().nullable(),
      byMatter: z.array(
        z.object({
          name: z.string(),
          matterId: idSchema,
          talks: z.number().int(),
          alone: z.number().int(),
          handedOver: z.number().int(),
          rating: z.number().nullable(),
        }),
      ),
    }),
  }),
  talks: endpoint({
    ...paths.assistant.talks,
    summary: 'Conversations behind a figure, the last first',
    query: z.object({
      days: z.coerce.number().int().min(1).max(366).default(28),
      matterId: idSchema.optional(),
      which: z.enum(['all', 'understood', 'alone', 'handedOver']).default('all'),
    }),
    answer: z.array(
      z.object({
        id: idSchema,
        at: instantSchema,
        person: personRefSchema.nullable(),
        first: z.string(),
        matter: z.string().nullable(),
        outcome: z.string().nullable(),
        rating: z.number().int().nullable(),
      }),
    ),
  }),
  read: endpoint({
    ...paths.assistant.read,
    summary: 'A conversation as it ran, with the sureness at each step',
    params: idParams,
    answer: talkSchema,
  }),
};
