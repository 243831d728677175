import type { Sequelize } from 'sequelize';
import type { TeamRole } from '../../core/rights';
import { flag, id, instant, integer, json, Table, text } from '../database/table';

/** The account of another program. It never stands among people: it has its own table and its own memberships. */
export type ProgramRow = {
  id: string;
  name: string;
  purpose: string;
  ownerId: string;
  isOn: boolean;
  mayChange: boolean;
  isAdministrator: boolean;
  mayAskForOthers: boolean;
  teams: { teamId: string; role: TeamRole }[];
  networks: string[];
  perMinute: number;
  endsAt: number | null;
  createdAt: number;
  version: number;
};
/** `secretHash` is the SHA-256 of the secret, so that the table alone lets nobody in. */
export type ApiKeyRow = {
  id: string;
  programId: string;
  secretHash: string;
  createdAt: number;
  endsAt: number | null;
  revokedAt: number | null;
  lastUsedAt: number | null;
  lastUsedFrom: string | null;
};

export function createProgramTables(sequelize: Sequelize) {
  return {
    programs: new Table<ProgramRow>(sequelize, 'programs', {
      ...{ id, name: text(100), purpose: text(500), ownerId: id, isOn: flag, mayChange: flag },
      ...{ isAdministrator: flag, mayAskForOthers: flag, teams: json, networks: json, perMinute: integer },
      ...{ endsAt: instant, createdAt: instant, version: integer },
    }),
    apiKeys: new Table<ApiKeyRow>(sequelize, 'api_keys', {
      ...{ id, programId: id, secretHash: text(64), createdAt: instant, endsAt: instant, revokedAt: instant },
      ...{ lastUsedAt: instant, lastUsedFrom: text(60) },
    }),
  };
}
