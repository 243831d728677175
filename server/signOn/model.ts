import type { Sequelize } from 'sequelize';
import type { GroupLine } from '../../core/signOn';
import { flag, id, instant, integer, json, Table, text } from '../database/table';

/** Where people sign in by OpenID Connect. */
export type ProviderRow = {
  id: string;
  name: string;
  /** Its address, as its own words of itself have it (`issuer`). */
  issuer: string;
  clientId: string;
  /** Null: a client without a secret, which PKCE alone protects. */
  sealedSecret: string | null;
  /** The mail domains that it answers for, in lower case. */
  domains: string[];
  isOn: boolean;
  makesPeople: boolean;
  /** Where those are who come by it for the first time. */
  siteId: string;
  /** The claim that holds someone's groups; empty: none. */
  groupsClaim: string;
  groupTable: GroupLine[];
  /** Whether signing out here signs out there too. */
  endsThere: boolean;
  version: number;
};
/** Who somebody at a provider is here. `gave`: the teams in which the provider gave them their place. */
export type SubjectRow = {
  providerId: string;
  subject: string;
  personId: string;
  gave: string[];
  at: number;
};
/** A sign-in under way. `id` is the SHA-256 of its state. `back`: the page that it leads to. */
export type FlowRow = {
  id: string;
  providerId: string;
  nonce: string;
  verifier: string;
  back: string;
  at: number;
};
/** What it takes to sign out there too. */
export type SignOnSessionRow = { sessionId: string; providerId: string; sealedToken: string; at: number };

export function createSignOnTables(sequelize: Sequelize) {
  return {
    signOnProviders: new Table<ProviderRow>(sequelize, 'sign_on_providers', {
      ...{ id, name: text(100), issuer: text(500), clientId: text(200), sealedSecret: text(1000) },
      ...{ domains: json, isOn: flag, makesPeople: flag, siteId: id, groupsClaim: text(100) },
      ...{ groupTable: json, endsThere: flag, version: integer },
    }),
    signOnSubjects: new Table<SubjectRow>(
      sequelize,
      'sign_on_subjects',
      { providerId: id, subject: text(255), personId: id, gave: json, at: instant },
      ['providerId', 'subject'],
    ),
    signOnFlows: new Table<FlowRow>(sequelize, 'sign_on_flows', {
      ...{
        id: text(64),
        providerId: id,
        nonce: text(100),
        verifier: text(200),
        back: text(500),
        at: instant,
      },
    }),
    signOnSessions: new Table<SignOnSessionRow>(
      sequelize,
      'sign_on_sessions',
      { sessionId: text(64), providerId: id, sealedToken: text(5000), at: instant },
      ['sessionId'],
    ),
  };
}
