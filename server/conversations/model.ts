import type { ConversationHappened } from '../../core/conversations';
import type { Sequelize } from 'sequelize';
import type { OfferFact } from '../../contract/talkNames';
import type { ConversationState, SilenceTimes } from '../../core/conversations';
import type { LocalText } from '../../core/forms';
import { autoNumber, flag, id, instant, integer, json, longText, Table, text } from '../database/table';

/** A waiting line for conversations: whose agents take from it, and what they must know. */
export type ChatLineRow = SilenceTimes & {
  id: string;
  name: LocalText;
  about: LocalText;
  teamId: string;
  skill: string | null;
  /** What tickets made from it are of. */
  serviceId: string | null;
  /** So long an agent has to take what they are offered. */
  offerSeconds: number;
  closedWords: LocalText;
  facts: OfferFact[];
  position: number;
  isOn: boolean;
  version: number;
};

/** How an agent takes part in live chat: apart from whether they take tickets. */
export type ChatAgentRow = {
  personId: string;
  presence: 'available' | 'busy' | 'away';
  capacity: number;
  alert: 'sound' | 'title' | 'none';
  /** When their Desk was last seen open. */
  seenAt: number;
  lastGivenAt: number | null;
};

export type ConversationRow = {
  id: string;
  personId: string;
  lineId: string;
  state: ConversationState;
  agentId: string | null;
  offeredTo: string | null;
  offeredAt: number | null;
  passedOver: string[];
  /** Where an agent hands it to another: by whom, and why. */
  handedBy: string | null;
  handedWhy: string | null;
  invitedIds: string[];
  assetTag: string | null;
  startedAt: number;
  /** Its place in the line: since when it counts as waiting. */
  lineAt: number;
  firstTakenAt: number | null;
  endedAt: number | null;
  endedBy: 'person' | 'agent' | 'silence' | 'left' | null;
  personSaidAt: number;
  agentSaidAt: number | null;
  askedThereAt: number | null;
  ticketNumber: number | null;
  /** Whether the ticket was made from it, or it was tied to one that there was. */
  isMade: boolean;
  rating: number | null;
  ratingWord: string | null;
  version: number;
};

/** What was said and what happened in a conversation, in order. */
export type ConversationEntryRow = ConversationHappened & {
  place: number;
  id: string;
  conversationId: string;
  at: number;
  authorId: string | null;
  readBy: 'all' | 'agents';
  text: string;
};

export function createConversationTables(sequelize: Sequelize) {
  return {
    chatLines: new Table<ChatLineRow>(sequelize, 'chat_lines', {
      ...{ id, name: json, about: json, teamId: id, skill: text(60), serviceId: id, closedWords: json },
      ...{
        facts: json,
        offerSeconds: integer,
        askAfter: integer,
        endAfter: integer,
        position: integer,
        isOn: flag,
        version: integer,
      },
    }),
    chatAgents: new Table<ChatAgentRow>(
      sequelize,
      'chat_agents',
      {
        ...{ personId: id, presence: text(12), capacity: integer, alert: text(12), seenAt: instant },
        lastGivenAt: instant,
      },
      ['personId'],
    ),
    conversations: new Table<ConversationRow>(sequelize, 'conversations', {
      ...{ id, personId: id, lineId: id, state: text(12), agentId: id, offeredTo: id, offeredAt: instant },
      ...{ passedOver: json, handedBy: id, handedWhy: text(500), invitedIds: json, assetTag: text(60) },
      ...{ startedAt: instant, lineAt: instant, firstTakenAt: instant, endedAt: instant, endedBy: text(12) },
      ...{ personSaidAt: instant, agentSaidAt: instant, askedThereAt: instant, ticketNumber: integer },
      ...{ isMade: flag, rating: integer, ratingWord: text(1000), version: integer },
    }),
    conversationEntries: new Table<ConversationEntryRow>(
      sequelize,
      'conversation_entries',
      {
        ...{ place: autoNumber, id, conversationId: id, at: instant, authorId: id, type: text(12) },
        ...{ readBy: text(12), text: longText, data: json },
      },
      ['place'],
    ),
    conversationWriting: new Table<{ conversationId: string; personId: string; at: number; readBy: string }>(
      sequelize,
      'conversation_writing',
      { conversationId: id, personId: id, at: instant, readBy: text(12) },
      ['conversationId', 'personId'],
    ),
  };
}
