import * as z from 'zod';
import { NOTICE_EVENTS } from '../core/chat';
import { URGENCIES } from '../core/tickets';
import { endpoint } from './endpoint';
import { paths } from './paths';
import {
  idParams,
  idSchema,
  instantSchema,
  languageSchema,
  localTextSchema,
  okSchema,
  textSchema,
} from './shared';
import { rowSchema } from './tickets';

/** What the form by which a message becomes a ticket may ask for. */
export const TICKET_FORM_FIELDS = ['requester', 'service', 'team', 'assignee', 'urgency'] as const;

const roomSchema = z.object({
  roomId: z.string(),
  name: z.string(),
  kind: z.string(),
  /** What Listo does there; null: nothing yet. */
  job: z.enum(['team', 'ask']).nullable(),
  teamId: idSchema.nullable(),
  serviceId: idSchema.nullable(),
  isEach: z.boolean(),
  language: languageSchema,
  state: z.enum(['on', 'stopped']),
  reason: z.string().nullable(),
  version: z.number().int(),
});
/** A room of the workplace chat, and what Listo does in it. */
export type ConnectedRoom = z.infer<typeof roomSchema>;

const settingsSchema = z.object({
  isOn: z.boolean(),
  name: localTextSchema,
  fields: z.array(z.enum(TICKET_FORM_FIELDS)),
  seenBy: z.enum(['everyone', 'agents']),
  /** What stands there to begin with: the service where the words fit none, the team, how urgent it is. */
  presets: z.object({
    service: idSchema.nullable(),
    team: idSchema.nullable(),
    urgency: z.enum(URGENCIES).nullable(),
  }),
  /** Services whose own form is filled in in chat. */
  formServiceIds: z.array(idSchema).max(100),
  version: z.number().int(),
});
/** How the form by which a message becomes a ticket is put together. */
export type ChatFormSettings = z.infer<typeof settingsSchema>;

const noticeFields = {
  name: textSchema(120),
  event: z.enum(NOTICE_EVENTS),
  teamId: idSchema.nullable(),
  roomId: idSchema.nullable(),
  personId: idSchema.nullable(),
  /** To each member of a team, or of one of its groups. */
  toTeamId: idSchema.nullable().default(null),
  toGroupId: idSchema.nullable().default(null),
  words: textSchema(1000),
};
const noticeSchema = z.object({
  ...noticeFields,
  ...{ id: idSchema, isOn: z.boolean(), triedAt: instantSchema.nullable(), version: z.number().int() },
  /** The name of the one it goes to, where that is a person. */
  person: z.string().nullable(),
});
/** A message that goes out to chat when something happens. */
export type ChatNotice = z.infer<typeof noticeSchema>;

const quietSchema = z.object({
  from: z.number().int().min(0).max(1439),
  to: z.number().int().min(0).max(1439),
});
const wishSchema = z.object({
  wantsChat: z.boolean(),
  wantsMail: z.boolean(),
  quiet: quietSchema.nullable(),
});
/** Whether and when someone wants to be told in chat. */
export type ChatWish = z.infer<typeof wishSchema>;

const cameSchema = z.object({
  ...{ id: idSchema, at: instantSchema, receivedAt: instantSchema, room: z.string(), type: z.string() },
  ...{ text: z.string(), outcome: z.string().nullable(), detail: z.string().nullable() },
  ...{ ticketNumber: z.number().int().nullable() },
});
const wentSchema = z.object({
  ...{
    id: idSchema,
    at: instantSchema,
    kind: z.string(),
    room: z.string(),
    state: z.string(),
    tries: z.number(),
  },
  ...{
    sentAt: instantSchema.nullable(),
    error: z.string().nullable(),
    ticketNumber: z.number().int().nullable(),
  },
});

/** Calls about workplace chat. */
export const chatEndpoints = {
  rooms: endpoint({
    ...paths.chat.rooms,
    summary: 'The rooms of the workplace chat, and what Listo does in each',
    answer: z.array(roomSchema),
  }),
  connect: endpoint({
    ...paths.chat.connect,
    summary: 'Let Listo work in a room: as the closed room of a team, or where employees ask',
    params: idParams,
    body: z.object({
      job: z.enum(['team', 'ask']),
      ...{ teamId: idSchema.nullable(), serviceId: idSchema.nullable(), isEach: z.boolean() },
      ...{ language: languageSchema, version: z.number().int() },
    }),
    answer: okSchema,
  }),
  disconnect: endpoint({
    ...paths.chat.disconnect,
    summary: 'Listo does nothing in the room any more',
    params: idParams,
    answer: okSchema,
  }),
  board: endpoint({
    ...paths.chat.board,
    summary: "The open tickets of the team whose room it is, the tightest first; null: it is no team's",
    params: idParams,
    answer: z.object({ teamId: idSchema, rows: z.array(rowSchema) }).nullable(),
  }),
  settings: endpoint({
    ...paths.chat.settings,
    summary: 'How tickets are made from chat, and which services’ forms can be filled in there',
    answer: settingsSchema.extend({
      /** `notInChat`: the question that chat cannot ask and that may be needed; null: the form fits. */
      services: z.array(
        z.object({ id: idSchema, title: localTextSchema, notInChat: localTextSchema.nullable() }),
      ),
    }),
  }),
  saveSettings: endpoint({
    ...paths.chat.saveSettings,
    summary: 'Set the name and the fields of the form, what is chosen to begin with and who finds it',
    body: settingsSchema,
    answer: z.object({ version: z.number().int() }),
  }),
  notices: endpoint({
    ...paths.chat.notices,
    summary: 'Messages that go out to a room or a person when something happens',
    answer: z.array(noticeSchema),
  }),
  addNotice: endpoint({
    ...paths.chat.addNotice,
    summary: 'Add such a message; it is off until it has been tried',
    body: z.object(noticeFields),
    answer: z.object({ id: idSchema }),
  }),
  tryNotice: endpoint({
    ...paths.chat.tryNotice,
    summary: 'Send it once as a trial: of the latest ticket that fits, else of a sample',
    params: idParams,
    answer: okSchema,
  }),
  turnNotice: endpoint({
    ...paths.chat.turnNotice,
    summary: 'Switch it on, once it has been tried, or off',
    params: idParams,
    body: z.object({ isOn: z.boolean() }),
    answer: okSchema,
  }),
  removeNotice: endpoint({
    ...paths.chat.removeNotice,
    summary: 'Remove it',
    params: idParams,
    answer: okSchema,
  }),
  in: endpoint({
    ...paths.chat.in,
    summary: 'What came from chat, and what became of it',
    answer: z.array(cameSchema),
  }),
  out: endpoint({
    ...paths.chat.out,
    summary: 'What went to chat, and what waits',
    answer: z.array(wentSchema),
  }),
  wish: endpoint({
    ...paths.chat.wish,
    isForPeople: true,
    summary: 'By which door I am told',
    answer: wishSchema,
  }),
  setWish: endpoint({
    ...paths.chat.setWish,
    summary: 'Set by which door I am told, and when I want quiet',
    body: wishSchema,
    answer: okSchema,
  }),
};
