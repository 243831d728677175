import type { Sequelize } from 'sequelize';
import type { LocalText } from '../../core/forms';
import type { Effect, Rule } from '../../core/rules';
import { flag, id, instant, integer, json, Table, text } from '../database/table';

/** What a rule says: all of it but where it stands. */
export type RuleDefinition = Pick<Rule, 'trigger' | 'provided' | 'effects' | 'isLast'>;

export type RuleRow = {
  id: string;
  name: LocalText;
  /** Null: it is everyone's. */
  teamId: string | null;
  /** Whoever is told when it cannot do something. */
  ownerId: string;
  position: number;
  isOn: boolean;
  definition: RuleDefinition;
  version: number;
  /** How often in a row something could not be done. */
  failures: number;
  failedAt: number | null;
  failedWith: string | null;
  changedAt: number;
  /** Since when it is on without a break: silence counts from what happened since. */
  onSince: number | null;
};

/** One thing that a rule did, or could not: then why. */
export type Did = { do: Effect['do']; problem: string | null };

/** A time at which a rule fired. `cause`: the entry, the silence since an entry, or the instant: `e12`, `s12`, `t1764…`. */
export type RuleRunRow = {
  ruleId: string;
  ticketNumber: number;
  cause: string;
  at: number;
  /** The version of the rule that fired. */
  version: number;
  did: Did[];
};

/** A rule as core asks it. */
export const toRule = ({ id: ruleId, position, isOn, teamId, definition }: RuleRow): Rule => ({
  ...{ id: ruleId, order: position, isOn, teamId },
  ...definition,
});

export function createRuleTables(sequelize: Sequelize) {
  return {
    rules: new Table<RuleRow>(sequelize, 'rules', {
      ...{ id, name: json, teamId: id, ownerId: id, position: integer, isOn: flag, definition: json },
      ...{ version: integer, failures: integer, failedAt: instant, failedWith: text(60) },
      ...{ changedAt: instant, onSince: instant },
    }),
    ruleRuns: new Table<RuleRunRow>(
      sequelize,
      'rule_runs',
      { ruleId: id, ticketNumber: integer, cause: text(40), at: instant, version: integer, did: json },
      ['ruleId', 'ticketNumber', 'cause'],
    ),
  };
}
