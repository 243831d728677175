import type { Sequelize } from 'sequelize';
import type { Needs, Silence, VoterReason } from '../../core/approvals';
import type { LocalText } from '../../core/forms';
import { id, instant, integer, json, longText, Table, text } from '../database/table';

export type ApprovalRow = {
  id: string;
  ticketNumber: number;
  /** The step of the ticket's plan that it is; null: it stands before the work. */
  stepId: string | null;
  /** Its place in the process that stands before the work. */
  place: number;
  /** What happens when someone says nothing. */
  silence: Silence | null;
  name: LocalText;
  needs: Needs;
  declineBy: 'any' | 'outOfReach';
  outcome: 'open' | 'approved' | 'declined' | 'withdrawn';
  startedAt: number;
  decidedAt: number | null;
};

export type AskRow = {
  id: string;
  approvalId: string;
  ticketNumber: number;
  voterId: string;
  askedId: string;
  reason: VoterReason;
  askedAt: number;
  decision: 'approve' | 'decline' | null;
  decidedById: string | null;
  decidedAt: number | null;
  words: string | null;
  /** Since when they have said nothing: asked, or reminded last. */
  silentSince: number | null;
  reminders: number;
  /** Where it was not said by the person now: carried from an earlier step, or by their silence. */
  how: 'carried' | 'silence' | null;
  /** Since when they wait for the answer to a question of theirs. */
  questionAt: number | null;
};

export function createApprovalTables(sequelize: Sequelize) {
  return {
    approvals: new Table<ApprovalRow>(sequelize, 'approvals', {
      id,
      ticketNumber: integer,
      stepId: id,
      place: integer,
      silence: json,
      name: json,
      needs: json,
      declineBy: text(20),
      outcome: text(20),
      startedAt: instant,
      decidedAt: instant,
    }),
    asks: new Table<AskRow>(sequelize, 'asks', {
      id,
      approvalId: id,
      ticketNumber: integer,
      voterId: id,
      askedId: id,
      reason: text(20),
      askedAt: instant,
      decision: text(10),
      decidedById: id,
      decidedAt: instant,
      words: longText,
      silentSince: instant,
      reminders: integer,
      how: text(20),
      questionAt: instant,
    }),
  };
}
