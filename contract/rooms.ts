import * as z from 'zod';
import { MOST_LINES } from '../core/chat';
import { clockSchema } from './clocks';
import { idSchema, instantSchema, textSchema } from './shared';

/** The longest that one says at once in a room. */
export const SAID_LIMIT = 20_000;

/** Something that can be pressed on a card. */
export const cardActionSchema = z.object({
  id: z.string(),
  name: z.string(),
  isMain: z.boolean().optional(),
});
/** A card in the workplace chat: what a ticket is and what can be done. */
export const cardSchema = z.object({
  number: z.number().int(),
  title: z.string(),
  facts: z.string(),
  dueAt: instantSchema.nullable(),
  isLate: z.boolean(),
  clock: clockSchema
    .pick({ state: true, elapsed: true, limit: true, dueAt: true, breachedAt: true, calendarId: true })
    .nullish(),
  isOver: z.boolean(),
  link: z.string(),
  actions: z.array(cardActionSchema),
});
/** A form that the workplace chat opens for Listo. */
export const chatFormSchema = z.object({
  title: z.string(),
  fields: z.array(
    z.object({
      name: z.string(),
      label: z.string(),
      kind: z.enum(['line', 'text', 'choice', 'choices', 'date', 'time']),
      value: z.string(),
      choices: z.array(z.object({ value: z.string(), label: z.string() })).optional(),
      note: z.string().optional(),
      needed: z.boolean().optional(),
      error: z.string().optional(),
    }),
  ),
  submit: z.string(),
  callback: z.record(z.string(), z.unknown()),
});

/** A file in the workplace chat. */
export const roomFileSchema = z.object({
  id: z.string(),
  name: z.string(),
  type: z.string(),
  size: z.number().int(),
});
/** A file in the workplace chat. */
export type RoomFile = z.infer<typeof roomFileSchema>;

/** A line in a room's log; by nobody of the people where Listo said it. */
export const roomMessageSchema = z.object({
  id: idSchema,
  place: z.number().int(),
  roomId: idSchema,
  threadId: idSchema.nullable(),
  by: z.object({ id: idSchema, name: z.string() }).nullable(),
  at: instantSchema,
  text: z.string(),
  card: cardSchema.nullable(),
  actions: z.array(cardActionSchema),
  files: z.array(roomFileSchema),
  /** Shown to this person alone. */
  forId: idSchema.nullable(),
  editedAt: instantSchema.nullable(),
  deletedAt: instantSchema.nullable(),
  replies: z.number().int(),
  lastReplyAt: instantSchema.nullable(),
});
/** A message in the workplace chat. */
export type RoomMessage = z.infer<typeof roomMessageSchema>;

/** The kinds of rooms; `listo` is someone's direct talk with Listo. */
export const ROOM_KINDS = ['open', 'closed', 'direct', 'listo'] as const;
/** A kind of room. */
export type RoomKind = (typeof ROOM_KINDS)[number];

/** Someone in the workplace chat. */
export type RoomPerson = { id: string; name: string; handle: string; isHere: boolean };
/** A room as its members' list has it. */
export type RoomInList = {
  id: string;
  name: string;
  kind: RoomKind;
  topic: string;
  unread: number;
  /** Of what is not read, how often one is called by name. */
  calls: number;
  isMember: boolean;
  members: number;
  hasListo: boolean;
};
/** What someone may do with any message: named by the one who set it up. */
export type MessageAction = { id: string; name: string };
/** What the workplace chat opens with. */
export type RoomsHome = { me: RoomPerson; rooms: RoomInList[]; messageActions: MessageAction[] };
/** A room with its members. */
export type RoomView = RoomInList & {
  people: RoomPerson[];
  messages: RoomMessage[];
  isMore: boolean;
  readPlace: number;
};

/** What the stand-in's live stream brings. */
export type RoomsLive =
  | { kind: 'message'; message: RoomMessage }
  | { kind: 'form'; form: z.infer<typeof chatFormSchema>; roomId: string }
  | { kind: 'rooms' }
  | { kind: 'here'; ids: string[] };

/** What is said in a room. */
export const sayBodySchema = z.object({
  text: textSchema(SAID_LIMIT).or(z.literal('')),
  threadId: idSchema.nullable().default(null),
  fileIds: z.array(idSchema).max(10).default([]),
  key: z.string().min(8).max(40),
});
/** A room that is made. */
export const roomBodySchema = z.object({
  name: textSchema(80),
  topic: z.string().max(200).default(''),
  kind: z.enum(['open', 'closed']),
});
/** What was pressed, on which messages. */
export const actBodySchema = z.object({
  action: z.string().max(40),
  messageIds: z.array(idSchema).min(1).max(MOST_LINES),
});
/** What was filled in to a form. */
export const formBodySchema = z.object({
  roomId: idSchema,
  callback: z.record(z.string(), z.unknown()),
  values: z.record(z.string(), z.string().max(SAID_LIMIT)),
});

/** A message as it is told to the one connected. */
const toldMessageSchema = z.object({
  id: z.string(),
  threadId: z.string().nullable(),
  byId: z.string().nullable(),
  at: instantSchema,
  text: z.string(),
  files: z.array(roomFileSchema),
});
/** A message as the chat tells Listo of it. */
export type ToldMessage = z.infer<typeof toldMessageSchema>;

/** What the workplace chat tells Listo: signed, at least once; what happened in one room is numbered without gaps. */
export const chatEventSchema = z.object({
  id: z.string().min(8).max(40),
  roomId: z.string(),
  roomKind: z.enum(ROOM_KINDS),
  seq: z.number().int(),
  at: instantSchema,
  byId: z.string().nullable(),
  type: z.enum(['message', 'edited', 'deleted', 'action', 'form', 'joined']),
  message: toldMessageSchema.optional(),
  messages: z.array(toldMessageSchema).optional(),
  action: z.string().optional(),
  callback: z.record(z.string(), z.unknown()).optional(),
  values: z.record(z.string(), z.string()).optional(),
});
/** Something that the chat tells Listo of. */
export type ChatEvent = z.infer<typeof chatEventSchema>;

/** What Listo asks of the workplace chat, each signed; `key` makes what comes twice one. */
export const botSchemas = {
  post: z.object({
    key: z.string().min(8).max(40),
    roomId: z.string().optional(),
    /** A direct talk with this person, opened where there is none. */
    personId: z.string().optional(),
    threadId: z.string().nullable().default(null),
    forId: z.string().nullable().default(null),
    text: z.string(),
    card: cardSchema.nullable().default(null),
    actions: z.array(cardActionSchema).default([]),
  }),
  update: z.object({
    messageId: z.string(),
    text: z.string().optional(),
    card: cardSchema.nullable().optional(),
    actions: z.array(cardActionSchema).optional(),
  }),
  /** What was said before a message, in its thread where it is in one; the earliest first. */
  before: z.object({ messageId: z.string(), count: z.number().int().min(1).max(MOST_LINES) }),
  form: z.object({ roomId: z.string(), personId: z.string(), form: chatFormSchema }),
  people: z.object({ ids: z.array(z.string()).optional(), email: z.string().optional() }),
  members: z.object({ roomId: z.string() }),
  rooms: z.object({}),
  join: z.object({ roomId: z.string() }),
  messageActions: z.object({
    actions: z.array(z.object({ id: z.string(), name: z.string(), forIds: z.array(z.string()).nullable() })),
  }),
  file: z.object({ fileId: z.string() }),
} as const;
/** What Listo asks of the chat, by the names of the calls. */
export type BotCalls = { [Name in keyof typeof botSchemas]: z.input<(typeof botSchemas)[Name]> };
