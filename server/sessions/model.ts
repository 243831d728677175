import type { Sequelize } from 'sequelize';
import { id, instant, integer, json, Table, text } from '../database/table';

/** `id` is the SHA-256 of the cookie's token, so that the table alone signs nobody in. */
export type SessionRow = {
  id: string;
  personId: string;
  createdAt: number;
  seenAt: number;
  expiresAt: number;
  userAgent: string;
  /** How its person came in. */
  way: SessionWay;
};
/** By a password of their own, a link that sets one, a provider of the organisation, or as one of the demo's people. */
export type SessionWay = 'password' | 'link' | 'provider' | 'demo';
/** A second factor of someone. `lastStep`: the last step of time whose code was used: each works once. */
export type SecondFactorRow = {
  personId: string;
  sealedSecret: string;
  at: number;
  /** Null: its person has not shown yet that they have it. */
  confirmedAt: number | null;
  lastStep: number | null;
  /** SHA-256 of the codes for when it is lost; each works once. */
  spareHashes: string[];
};
/** Failed sign-ins of one name from one address. */
export type SignInFailureRow = { key: string; count: number; lastAt: number };
/** An answer kept for a POST that may come again. */
export type KeptAnswerRow = {
  personId: string;
  key: string;
  at: number;
  answer: unknown;
  /** What the request said that it answers, as a hash. */
  request: string | null;
};

export function createSessionTables(sequelize: Sequelize) {
  return {
    sessions: new Table<SessionRow>(sequelize, 'sessions', {
      id: text(64),
      personId: id,
      createdAt: instant,
      seenAt: instant,
      expiresAt: instant,
      userAgent: text(300),
      way: text(10),
    }),
    secondFactors: new Table<SecondFactorRow>(
      sequelize,
      'second_factors',
      {
        ...{ personId: id, sealedSecret: text(1000), at: instant, confirmedAt: instant },
        ...{ lastStep: integer, spareHashes: json },
      },
      ['personId'],
    ),
    signInFailures: new Table<SignInFailureRow>(
      sequelize,
      'sign_in_failures',
      { key: text(64), count: integer, lastAt: instant },
      ['key'],
    ),
    keptAnswers: new Table<KeptAnswerRow>(
      sequelize,
      'kept_answers',
      { personId: id, key: text(100), at: instant, answer: json, request: text(64) },
      ['personId', 'key'],
    ),
  };
}
