import * as z from 'zod';
import { ARTICLE_STATES } from '../core/knowledge';
import { endpoint } from './endpoint';
import { PLACES } from './names';
import { paths } from './paths';
import { audienceSchema } from './services';
import {
  idParams,
  idSchema,
  instantSchema,
  languageSchema,
  localTextSchema,
  numberParams,
  okSchema,
  personRefSchema,
  textSchema,
} from './shared';

/** Where someone was when they looked for an answer. */
export const KNOWLEDGE_DOORS = ['ask', 'form', 'desk', 'assistant', 'open'] as const;
const doorSchema = z.enum(KNOWLEDGE_DOORS);
/** Where an article was met. */
export type KnowledgeDoor = z.infer<typeof doorSchema>;

const TITLE_LIMIT = 200;
const BODY_LIMIT = 50_000;
const localWords = (limit: number) => z.object({ en: z.string().max(limit), pt: z.string().max(limit) });

const passageSchema = z.array(z.object({ text: z.string(), isMarked: z.boolean() }));

/** An article as something that may answer: with the passage that does, and how it fared so far. */
export const foundArticleSchema = z.object({
  id: idSchema,
  title: z.string(),
  passage: passageSchema,
  helped: z.number().int(),
  judged: z.number().int(),
});
/** An article that fits some words, with the passage that does. */
export type FoundArticle = z.infer<typeof foundArticleSchema>;

const cardSchema = z.object({
  id: idSchema,
  teamId: idSchema,
  place: z.enum(PLACES),
  labels: z.array(z.string()),
  title: localTextSchema,
  state: z.enum(ARTICLE_STATES),
  isOpen: z.boolean(),
  isForAll: z.boolean(),
  changedAt: instantSchema,
  reviewAt: instantSchema.nullable(),
  /** Whether what is published differs from what is being written. */
  hasChanges: z.boolean(),
});
/** An article as its authors' list has it. */
export type ArticleCard = z.infer<typeof cardSchema>;

const bodySchema = z.object({
  teamId: idSchema,
  ownerId: idSchema,
  place: z.enum(PLACES),
  labels: z.array(z.string().trim().min(1).max(60)).max(20),
  isOpen: z.boolean(),
  audience: audienceSchema,
  reviewAt: instantSchema.nullable(),
  title: localWords(TITLE_LIMIT),
  body: localWords(BODY_LIMIT),
  otherWords: localWords(1_000),
  fromTicket: z.number().int().positive().nullable(),
});
/** An article as it is written. */
export type ArticleBody = z.infer<typeof bodySchema>;

/** What is read: in the reader's language, or the other where it is not written in theirs. */
const readSchema = z.object({
  id: idSchema,
  title: z.string(),
  body: z.string(),
  language: languageSchema,
  teamName: localTextSchema,
  labels: z.array(z.string()),
  publishedAt: instantSchema,
  helped: z.number().int(),
  judged: z.number().int(),
  mayEdit: z.boolean(),
});
/** An article as it is read. */
export type ReadArticle = z.infer<typeof readSchema>;

const countsSchema = z.object({
  shown: z.number().int(),
  opened: z.number().int(),
  helped: z.number().int(),
  notHelped: z.number().int(),
  deflected: z.number().int(),
  shared: z.number().int(),
  doneWith: z.number().int(),
  /** Read, and a ticket on a service that offers it was written all the same within a day. */
  ticketAllTheSame: z.number().int(),
});

const fatesSchema = z.object({
  alone: z.number().int(),
  shared: z.number().int(),
  without: z.number().int(),
});
/** Tickets solved by an article alone, with one that was sent, and without any. */
export type Fates = z.infer<typeof fatesSchema>;

const daysQuery = z.object({ days: z.coerce.number().int().min(1).max(366).default(28) });
const searchQuery = z.object({
  q: z.string().max(20_000),
  service: idSchema.optional(),
  /** Only what this team wrote. */
  team: idSchema.optional(),
  door: doorSchema.default('ask'),
  most: z.coerce.number().int().min(1).max(30).default(5),
});

/** Calls about articles. */
export const knowledgeEndpoints = {
  search: endpoint({
    ...paths.knowledge.search,
    summary: 'Articles that answer the words typed so far, the best first, with the passage',
    query: searchQuery,
    answer: z.array(foundArticleSchema),
  }),
  asked: endpoint({
    ...paths.knowledge.asked,
    summary: 'Say what was asked and which articles were shown for it',
    body: z.object({
      words: textSchema(500),
      door: doorSchema,
      serviceId: idSchema.nullable().default(null),
      articleIds: z.array(idSchema).max(10),
    }),
    answer: okSchema,
  }),
  read: endpoint({
    ...paths.knowledge.read,
    summary: 'Read an article; open ones also without signing in',
    isOpen: true,
    params: idParams,
    query: z.object({ language: languageSchema.optional() }),
    answer: readSchema,
  }),
  opened: endpoint({
    ...paths.knowledge.opened,
    summary: 'Say that an article was opened',
    params: idParams,
    body: z.object({ door: doorSchema, number: z.number().int().positive().nullable().default(null) }),
    answer: okSchema,
  }),
  judge: endpoint({
    ...paths.knowledge.judge,
    summary: 'Say whether an article was it; in place of writing a request that counts as deflection',
    params: idParams,
    body: z.object({
      helped: z.boolean(),
      words: z.string().max(1_000).default(''),
      door: doorSchema,
      isInstead: z.boolean().default(false),
      number: z.number().int().positive().nullable().default(null),
    }),
    answer: okSchema,
  }),
  browse: endpoint({
    ...paths.knowledge.browse,
    summary: 'All articles that I may read',
    answer: z.array(
      cardSchema.pick({ id: true, place: true, teamId: true, labels: true }).extend({ title: z.string() }),
    ),
  }),
  list: endpoint({
    ...paths.knowledge.list,
    summary: 'All articles, for those who write them',
    answer: z.array(cardSchema),
  }),
  get: endpoint({
    ...paths.knowledge.get,
    summary: 'An article as it is being written',
    params: idParams,
    answer: bodySchema.extend({
      id: idSchema,
      version: z.number().int(),
      state: z.enum(ARTICLE_STATES),
      hasChanges: z.boolean(),
      owner: personRefSchema.nullable(),
      moves: z.array(z.enum(ARTICLE_STATES)),
      mayEdit: z.boolean(),
      counts: countsSchema,
    }),
  }),
  create: endpoint({
    ...paths.knowledge.create,
    summary: 'Begin an article',
    body: bodySchema,
    answer: z.object({ id: idSchema }),
  }),
  update: endpoint({
    ...paths.knowledge.update,
    summary: 'Change what is being written; what is published stays until it is published anew',
    params: idParams,
    body: bodySchema.extend({ version: z.number().int() }),
    answer: z.object({ version: z.number().int() }),
  }),
  move: endpoint({
    ...paths.knowledge.move,
    summary: 'Have an article reviewed, publish it, take it back or retire it',
    params: idParams,
    body: z.object({ to: z.enum(ARTICLE_STATES), version: z.number().int() }),
    answer: z.object({ version: z.number().int() }),
  }),
  versions: endpoint({
    ...paths.knowledge.versions,
    summary: 'All versions of an article that were published, the last first',
    params: idParams,
    answer: z.array(
      z.object({
        version: z.number().int(),
        at: instantSchema,
        by: personRefSchema.nullable(),
        title: localTextSchema,
        body: localTextSchema,
      }),
    ),
  }),
  use: endpoint({
    ...paths.knowledge.use,
    summary: 'How an article was used day by day, and what people said of it',
    params: idParams,
    query: daysQuery,
    answer: z.object({
      days: z.array(
        countsSchema
          .pick({
            opened: true,
            helped: true,
            notHelped: true,
            deflected: true,
            shared: true,
            doneWith: true,
          })
          .extend({ from: instantSchema }),
      ),
      words: z.array(
        z.object({ at: instantSchema, helped: z.boolean(), door: doorSchema, words: z.string() }),
      ),
    }),
  }),
  synonyms: endpoint({
    ...paths.knowledge.synonyms,
    summary: 'Other words for the same, as authors keep them',
    answer: z.object({ en: z.string(), pt: z.string(), version: z.number().int() }),
  }),
  setSynonyms: endpoint({
    ...paths.knowledge.setSynonyms,
    summary: 'Change which words stand for the same, a line for each group',
    body: z.object({ en: z.string().max(20_000), pt: z.string().max(20_000), version: z.number().int() }),
    answer: z.object({ version: z.number().int() }),
  }),
  health: endpoint({
    ...paths.knowledge.health,
    summary: 'How articles fare, and what tickets were done with',
    query: daysQuery,
    answer: z.object({
      articles: z.array(
        countsSchema.extend({ id: idSchema, title: localTextSchema, state: z.enum(ARTICLE_STATES) }),
      ),
      /** Opened much and of little help, the worst first. */
      needy: z.array(idSchema),
      due: z.array(z.object({ id: idSchema, title: localTextSchema, reviewAt: instantSchema })),
      fates: fatesSchema,
      byService: z.array(fatesSchema.extend({ serviceId: idSchema })),
      weeks: z.array(fatesSchema.extend({ from: instantSchema })),
    }),
  }),
  unanswered: endpoint({
    ...paths.knowledge.unanswered,
    summary: 'What was asked and not answered, by what it means, with the tickets that it made',
    query: daysQuery,
    answer: z.object({
      /** Minutes of work that a ticket takes as it is noted; null where nothing is. */
      minutesPerTicket: z.number().nullable(),
      groups: z.array(
        z.object({
          words: z.string(),
          language: languageSchema,
          asked: z.number().int(),
          tickets: z.number().int(),
          others: z.array(z.string()),
        }),
      ),
    }),
  }),
  forTicket: endpoint({
    ...paths.knowledge.forTicket,
    summary: 'Articles that fit a ticket, or words of the agent',
    params: numberParams,
    query: z.object({ q: z.string().max(500).default('') }),
    answer: z.object({
      articles: z.array(foundArticleSchema),
      /** Those that the requester may read. */
      shareableIds: z.array(idSchema),
      sharedIds: z.array(idSchema),
      isNothing: z.boolean(),
    }),
  }),
  share: endpoint({
    ...paths.knowledge.share,
    summary: 'Send an article to the requester as an answer',
    params: numberParams.extend({ id: idSchema }),
    body: z.object({ text: textSchema(20_000).optional() }),
    answer: z.object({ messageId: idSchema }),
  }),
  shareText: endpoint({
    ...paths.knowledge.shareText,
    summary: 'The answer with which an article would be sent, to be edited first',
    params: numberParams.extend({ id: idSchema }),
    answer: z.object({ text: z.string() }),
  }),
  nothing: endpoint({
    ...paths.knowledge.nothing,
    summary: 'Say that there is no article on this, or take that back',
    params: numberParams,
    body: z.object({ isNothing: z.boolean() }),
    answer: okSchema,
  }),
  fromTicket: endpoint({
    ...paths.knowledge.fromTicket,
    summary: 'An article prefilled from how a ticket was solved, without what says who it was',
    params: numberParams,
    answer: bodySchema.pick({ title: true, body: true, teamId: true, place: true, labels: true }),
  }),
};
