import type { Sequelize } from 'sequelize';
import type { Needs, VoterReason } from '../../core/approvals';
import type { LocalText } from '../../core/forms';
import { id, instant, integer, json, longText, Table, text } from '../database/table';

export type ApprovalRow = {
  id: string;
  ticketNumber: number;
  /** The step of the ticket's plan that it is; null: it stands before the work. */
  stepId: string | null;
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
};

export function createApprovalTables(sequelize: Sequelize) {
  return {
    approvals: new Table<ApprovalRow>(sequelize, 'approvals', {
      id,
      ticketNumber: integer,
      stepId: id,
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
    }),
  };
}
