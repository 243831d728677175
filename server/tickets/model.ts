import type { Sequelize } from 'sequelize';
import type { AnswerLink, Answers } from '../../core/forms';
import type { Door, HeldFor, Impact, Priority, TicketKind, TicketState, Urgency } from '../../core/tickets';
import { autoNumber, flag, id, instant, integer, json, longText, Table, text } from '../database/table';

export type TicketRecord = {
  number: number;
  version: number;
  kind: TicketKind;
  title: string;
  serviceId: string;
  /** The version of the service under which it was sent. */
  serviceVersion: number;
  teamId: string;
  groupId: string | null;
  /** That of the team, kept here so that lists can be filtered by an index. */
  isConfidential: boolean;
  requesterId: string;
  raisedById: string | null;
  assigneeId: string | null;
  state: TicketState;
  heldFor: HeldFor | null;
  heldUntil: number | null;
  heldReason: string | null;
  solution: string | null;
  isDeclined: boolean;
  priority: Priority;
  impact: Impact;
  urgency: Urgency;
  /** Why an agent overrode the table; null where the table says it. */
  priorityReason: string | null;
  via: Door;
  place: string;
  answers: Answers;
  answered: boolean;
  /** Whether a person of its team has begun with it. */
  takenUp: boolean;
  createdAt: number;
  /** When someone said it is due; for a bare date, the date's end where its holder is. */
  dueAt: number | null;
  dueDate: string | null;
  remindAt: number | null;
  changedAt: number;
  resolvedAt: number | null;
  closedAt: number | null;
  rating: number | null;
  ratingWord: string | null;
  /** The team's own label of how far it is, and since when that counts as finished. */
  progressId: string | null;
  progressFinishedAt: number | null;
  /** The earliest due instant of its running clocks, or NOTHING_DUE; written by the clocks. */
  tightestDueAt: number;
  /** Since when the requester waits for a word of the team. */
  waitsSince: number | null;
  /** Milliseconds by which it stands before others due at the same instant; kept with what it rests on. */
  headStart: number;
  /** The ticket that it stands under, and how. */
  underNumber: number | null;
  underAs: 'same' | 'cause' | null;
  /** How long it should take. */
  estimateMinutes: number | null;
};

/** Sorts after every instant. */
export const NOTHING_DUE = 9_000_000_000_000_000;

export type MessageRow = {
  id: string;
  ticketNumber: number;
  at: number;
  authorId: string;
  via: Door;
  readBy: 'requester' | 'team';
  isByTeam: boolean;
  /** Whether its author wants it read in the open room that the ticket was made in. */
  isPublic: boolean;
  text: string;
  format: 'plain' | 'rich';
  links: AnswerLink[];
};

export type FollowerRow = { ticketNumber: number; personId: string; role: 'alsoTold' | 'collaborator' };

const TICKET_COLUMNS = {
  number: autoNumber,
  version: integer,
  kind: text(10),
  title: text(),
  serviceId: id,
  serviceVersion: integer,
  teamId: id,
  groupId: id,
  isConfidential: flag,
  requesterId: id,
  raisedById: id,
  assigneeId: id,
  state: text(10),
  heldFor: text(10),
  heldUntil: instant,
  heldReason: longText,
  solution: longText,
  isDeclined: flag,
  priority: text(2),
  impact: text(20),
  urgency: text(20),
  priorityReason: text(500),
  via: text(20),
  place: text(),
  answers: json,
  answered: flag,
  takenUp: flag,
  createdAt: instant,
  dueAt: instant,
  dueDate: text(10),
  remindAt: instant,
  changedAt: instant,
  resolvedAt: instant,
  closedAt: instant,
  rating: integer,
  progressId: id,
  progressFinishedAt: instant,
  ratingWord: longText,
  tightestDueAt: instant,
  waitsSince: instant,
  headStart: integer,
  underNumber: integer,
  underAs: text(10),
  estimateMinutes: integer,
};

export function createTicketTables(sequelize: Sequelize) {
  return {
    tickets: new Table<TicketRecord>(sequelize, 'tickets', TICKET_COLUMNS, ['number']),
    messages: new Table<MessageRow>(sequelize, 'messages', {
      id,
      ticketNumber: integer,
      at: instant,
      authorId: id,
      via: text(20),
      readBy: text(10),
      isByTeam: flag,
      isPublic: flag,
      text: longText,
      format: text(10),
      links: json,
    }),
    followers: new Table<FollowerRow>(
      sequelize,
      'followers',
      { ticketNumber: integer, personId: id, role: text(20) },
      ['ticketNumber', 'personId', 'role'],
    ),
  };
}
