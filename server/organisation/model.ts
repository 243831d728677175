import type { Sequelize } from 'sequelize';
import { id, instant, Table, text } from '../database/table';

/** A link that lets somebody in once. `id` is the SHA-256 of its token. */
export type InvitationRow = {
  id: string;
  personId: string;
  byId: string;
  at: number;
  endsAt: number;
  usedAt: number | null;
  /** When a later one took its place. */
  replacedAt: number | null;
};

export function createOrganisationTables(sequelize: Sequelize) {
  return {
    invitations: new Table<InvitationRow>(sequelize, 'invitations', {
      id: text(64),
      personId: id,
      byId: id,
      at: instant,
      endsAt: instant,
      usedAt: instant,
      replacedAt: instant,
    }),
  };
}
