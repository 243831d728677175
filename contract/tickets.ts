import * as z from 'zod';
import { TICKET_ENTRY_KINDS, type EntryFacts } from '../core/journal';
import type { Answers } from '../core/forms';
import { TICKET_ACTIONS } from '../core/rights';
import {
  DOORS,
  HELD_FOR,
  IMPACTS,
  MOVE_FIELDS,
  MOVE_NAMES,
  PRIORITIES,
  TICKET_KINDS,
  TICKET_STATES,
  URGENCIES,
} from '../core/tickets';
import { answeredSchema, formFieldSchema } from './forms';
import { clockSchema } from './clocks';
import { endpoint } from './endpoint';
import { paths } from './paths';
import { progressLabelSchema } from './teams';
import { planSchema } from './plans';
import { fileSchema } from './files';
import {
  idSchema,
  instantSchema,
  localTextSchema,
  numberParams,
  okSchema,
  personRefSchema,
  textSchema,
} from './shared';

/** Words as they are, or with formatting in Markdown. */
export const WORD_FORMATS = ['plain', 'rich'] as const;

const linkSchema = z.object({ url: z.string().max(2000), name: z.string().max(200) });
const answersSchema = z.record(z.string().max(60), z.unknown()) as unknown as z.ZodType<Answers>;

/** What entries carry, with the names of those whom it concerns; which of it is there goes by the kind. */
const factsSchema = z.record(z.string(), z.unknown()) as unknown as z.ZodType<
  EntryFacts & { person?: string | undefined; former?: string | undefined }
>;

/** An entry of the journal as the page shows it; `message` where words were sent with it. */
export const entrySchema = z.object({
  id: z.number().int(),
  at: instantSchema,
  type: z.enum(TICKET_ENTRY_KINDS),
  actor: personRefSchema.nullable(),
  via: z.string(),
  /** The rule that did it, for the team; null: none, or it is not theirs to read. */
  rule: z.object({ id: idSchema, name: localTextSchema.nullable() }).nullable(),
  audience: z.enum(['requester', 'team']),
  /** The ticket that it came along from; null: this one. */
  from: z.number().int().nullable(),
  changes: z.record(z.string(), z.object({ from: z.unknown(), to: z.unknown() })),
  data: factsSchema,
  message: z
    .object({
      id: idSchema,
      text: z.string(),
      format: z.enum(WORD_FORMATS),
      readBy: z.enum(['requester', 'team']),
      isByTeam: z.boolean(),
      links: z.array(linkSchema),
      files: z.array(fileSchema),
    })
    .nullable(),
});
/** Something that happened on a ticket, as its reader may see it. */
export type Entry = z.infer<typeof entrySchema>;

/** An approval on a ticket, and who has said what. */
export const approvalSchema = z.object({
  id: idSchema,
  name: localTextSchema,
  outcome: z.enum(['open', 'approved', 'declined', 'withdrawn']),
  asks: z.array(
    z.object({
      id: idSchema,
      voter: personRefSchema,
      asked: personRefSchema,
      reason: z.string(),
      decision: z.enum(['approve', 'decline']).nullable(),
      decidedAt: instantSchema.nullable(),
      words: z.string().nullable(),
    }),
  ),
});

/** What someone set by hand, and how the ticket stands to it. */
const dueSchema = z.object({
  at: instantSchema,
  date: z.string().nullable(),
  remindAt: instantSchema.nullable(),
  standing: z.enum(['toCome', 'past', 'inTime', 'late']),
});
/** A due instant set by hand, and how things stand to it. */
export type Due = z.infer<typeof dueSchema>;

const moveSchema = z.object({
  name: z.enum(MOVE_NAMES),
  by: z.enum(['requester', 'agent']),
});

/** The page of a ticket, as its reader may see it. */
export const ticketSchema = z.object({
  number: z.number().int(),
  version: z.number().int(),
  kind: z.enum(TICKET_KINDS),
  title: z.string(),
  service: z.object({ id: idSchema, title: localTextSchema }),
  requester: personRefSchema.extend({
    title: z.string(),
    site: z.string(),
    timeZone: z.string(),
    phone: z.string(),
    vessel: z.string().nullable(),
    device: z.string().nullable(),
    manager: z.string().nullable(),
    openBesides: z.number().int(),
  }),
  raisedBy: personRefSchema.nullable(),
  team: z.object({ id: idSchema, name: localTextSchema, calendarId: idSchema }),
  group: z.object({ id: idSchema, name: z.string() }).nullable(),
  assignee: personRefSchema.nullable(),
  /** Whether a person of its team has begun with it. */
  isTakenUp: z.boolean(),
  state: z.enum(TICKET_STATES),
  heldFor: z.enum(HELD_FOR).nullable(),
  heldUntil: instantSchema.nullable(),
  heldReason: z.string().nullable(),
  solution: z.string().nullable(),
  isDeclined: z.boolean(),
  /** What its service says of its state, in words of its own. */
  ownWords: localTextSchema.nullable(),
  /** How far it is, in its team's own words. */
  progress: progressLabelSchema.nullable(),
  progressFinishedAt: instantSchema.nullable(),
  priority: z.enum(PRIORITIES),
  impact: z.enum(IMPACTS),
  urgency: z.enum(URGENCIES),
  priorityReason: z.string().nullable(),
  via: z.enum(DOORS),
  createdAt: instantSchema,
  due: dueSchema.nullable(),
  closesAt: instantSchema.nullable(),
  rating: z.number().int().nullable(),
  ratingWord: z.string().nullable(),
  answers: z.array(answeredSchema),
  /** All questions of the form that it was sent with, for those who may change what was answered; else none. */
  questions: z.array(formFieldSchema),
  /** Names of the questions that are needed and have no answer: what came by chat or mail need not have all. */
  missing: z.array(z.string()),
  place: z.string(),
  files: z.array(fileSchema),
  /** The room with the ticket's line, for those who may answer: what they write there is read by all in it. */
  room: z.object({ name: z.string() }).nullable(),
  /** Where it was said in chat what it was made of, for its team; `room` is null for a talk between two. */
  conversation: z.object({ room: z.string().nullable(), link: z.string() }).nullable(),
  alsoTold: z.array(personRefSchema),
  collaborators: z.array(personRefSchema),
  approvals: z.array(approvalSchema),
  plan: planSchema.nullable(),
  entries: z.array(entrySchema),
  clocks: z.array(clockSchema),
  moves: z.array(moveSchema),
  rights: z.array(z.enum(TICKET_ACTIONS)),
});
/** The page of a ticket, as its reader may see it. */
export type Ticket = z.infer<typeof ticketSchema>;

/** A ticket as lists show it. */
export const rowSchema = z.object({
  number: z.number().int(),
  version: z.number().int(),
  kind: z.enum(TICKET_KINDS),
  title: z.string(),
  service: localTextSchema,
  place: z.string(),
  requester: personRefSchema,
  assignee: personRefSchema.nullable(),
  /** Whether a person of its team has begun with it. */
  isTakenUp: z.boolean(),
  team: z.object({ id: idSchema, name: localTextSchema }),
  approvers: z.array(z.string()),
  state: z.enum(TICKET_STATES),
  heldFor: z.enum(HELD_FOR).nullable(),
  heldUntil: instantSchema.nullable(),
  isDeclined: z.boolean(),
  ownWords: localTextSchema.nullable(),
  progress: progressLabelSchema.nullable(),
  priority: z.enum(PRIORITIES),
  createdAt: instantSchema,
  changedAt: instantSchema,
  due: dueSchema.nullable(),
  /** What its plan promised, where it follows one. */
  promisedAt: instantSchema.nullable(),
  clocks: z.array(clockSchema),
  site: z.string().nullable(),
  groupName: z.string().nullable(),
  via: z.enum(DOORS),
  /** Since when the requester waits for a word of the team. */
  waitsSince: instantSchema.nullable(),
  resolvedAt: instantSchema.nullable(),
  closedAt: instantSchema.nullable(),
  rating: z.number().int().nullable(),
  /** Finished: in time or late by its promises. */
  standing: z.enum(['inTime', 'late']).nullable(),
  /** Where the row is not the ticket but a step of its plan, whose turn it is, or an approval: team and assignee are those of that. */
  step: z
    .object({
      id: idSchema,
      /** A task of its plan, or an approval that waits for me. */
      kind: z.enum(['task', 'approval']),
      name: localTextSchema,
      neededBy: instantSchema,
    })
    .nullable(),
});
/** A ticket as lists show it. */
export type TicketRow = z.infer<typeof rowSchema>;

/** Words on a ticket as they are sent. */
export const messageBodySchema = z.object({
  text: textSchema(20_000),
  format: z.enum(WORD_FORMATS).default('plain'),
  readBy: z.enum(['requester', 'team']),
  links: z.array(linkSchema).max(20).default([]),
  fileIds: z.array(idSchema).max(20).default([]),
  /** Also under the line in the room that the ticket was made in, where others read it. */
  isPublic: z.boolean().default(false),
});

/** Calls about tickets. */
export const ticketEndpoints = {
  create: endpoint({
    ...paths.tickets.create,
    summary: 'Ask for a service, for oneself or (with the right) for someone else',
    body: z.object({
      serviceId: idSchema,
      requesterId: idSchema.optional(),
      via: z.enum(['portal', 'phone', 'inPerson', 'desk']).default('portal'),
      title: textSchema(200),
      /** As an agent judges it; else as the form or the service has it. */
      impact: z.enum(IMPACTS).optional(),
      urgency: z.enum(URGENCIES).optional(),
      answers: answersSchema,
      fileIds: z.array(idSchema).max(20).default([]),
      alsoToldIds: z.array(idSchema).max(20).default([]),
    }),
    answer: z.object({ number: z.number().int() }),
  }),
  get: endpoint({
    ...paths.tickets.get,
    summary: 'A ticket as I may see it',
    params: numberParams,
    answer: ticketSchema,
  }),
  mine: endpoint({
    ...paths.tickets.mine,
    summary: 'Tickets I asked for or follow, the newest first',
    query: z.object({
      which: z.enum(['open', 'past']).default('open'),
      before: z.coerce.number().int().optional(),
    }),
    answer: z.object({ rows: z.array(rowSchema), next: z.number().int().nullable() }),
  }),
  answers: endpoint({
    ...paths.tickets.answers,
    summary: 'Change what was answered; who agreed to something else is asked anew',
    params: numberParams,
    body: z.object({ version: z.number().int(), answers: answersSchema }),
    answer: z.object({ version: z.number().int() }),
  }),
  change: endpoint({
    ...paths.tickets.change,
    summary: 'Change facts of a ticket; a stale version is refused with the differences',
    params: numberParams,
    body: z.object({
      version: z.number().int(),
      title: textSchema(200).optional(),
      /** Where it is about, in a few words. */
      place: textSchema(255).optional(),
      impact: z.enum(IMPACTS).optional(),
      urgency: z.enum(URGENCIES).optional(),
      priority: z.enum(PRIORITIES).optional(),
      priorityReason: textSchema(500).optional(),
      /** A label of the ticket's team, or none. */
      progressId: idSchema.nullable().optional(),
      /** When it is due, set by hand: an instant, or a bare date, which is due at its end. */
      due: z
        .union([z.object({ at: instantSchema }), z.object({ date: z.iso.date() })])
        .nullable()
        .optional(),
      remindAt: instantSchema.nullable().optional(),
    }),
    answer: z.object({ version: z.number().int() }),
  }),
  changeService: endpoint({
    ...paths.tickets.changeService,
    summary: 'File a ticket under another service; what both forms ask for stays answered',
    params: numberParams,
    body: z.object({ version: z.number().int(), serviceId: idSchema }),
    answer: z.object({ version: z.number().int() }),
  }),
  changeRequester: endpoint({
    ...paths.tickets.changeRequester,
    summary: 'Put someone else in the place of the one who asks',
    params: numberParams,
    body: z.object({ version: z.number().int(), requesterId: idSchema }),
    answer: z.object({ version: z.number().int() }),
  }),
  move: endpoint({
    ...paths.tickets.move,
    summary: 'Move a ticket, by the rules of its state',
    params: numberParams,
    body: z.object({
      name: z.enum(MOVE_NAMES),
      by: z.enum(['requester', 'agent']),
      version: z.number().int(),
      input: z
        .partialRecord(z.enum(MOVE_FIELDS), z.union([z.string().max(20_000), z.number(), z.null()]))
        .default({}),
    }),
    answer: z.object({ version: z.number().int() }),
  }),
  undo: endpoint({
    ...paths.tickets.undo,
    summary: 'Take my last move back, as long as nothing has followed',
    params: numberParams,
    body: z.object({ version: z.number().int() }),
    answer: z.object({ version: z.number().int() }),
  }),
  write: endpoint({
    ...paths.tickets.write,
    summary: 'Send words to the requester or to the team',
    params: numberParams,
    body: messageBodySchema,
    answer: z.object({ messageId: idSchema }),
  }),
  follow: endpoint({
    ...paths.tickets.follow,
    summary: 'Have someone also told, or ask a collaborator in',
    params: numberParams,
    body: z.object({ personId: idSchema, role: z.enum(['alsoTold', 'collaborator']) }),
    answer: okSchema,
  }),
  unfollow: endpoint({
    ...paths.tickets.unfollow,
    summary: 'No longer have someone told',
    params: numberParams,
    body: z.object({ personId: idSchema, role: z.enum(['alsoTold', 'collaborator']) }),
    answer: okSchema,
  }),
  find: endpoint({
    ...paths.tickets.find,
    summary: 'Tickets, people and services that fit the words, as I may see them',
    query: z.object({ q: z.string().max(100) }),
    answer: z.object({
      tickets: z.array(z.object({ number: z.number().int(), title: z.string(), requester: z.string() })),
      people: z.array(personRefSchema.extend({ title: z.string() })),
    }),
  }),
};
