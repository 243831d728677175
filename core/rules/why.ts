import { holds, type Condition, type Fields } from '../conditions';
import { mayHear } from './order';
import { fits } from './rulesFor';
import type { Happening, Rule } from './types';

/** The first part of a condition that did not hold, and the value that it met. */
export type Unmet = { part: Condition; value: unknown };

/** Why a rule did not fire, or that it did. */
export type Why =
  | { fired: true }
  | { fired: false; because: 'off' | 'notAsked' | 'chain' | 'otherTeam' }
  | { fired: false; because: 'condition'; unmet: Unmet };

/**
 * The first part that keeps a condition from holding, as deep as it can be named; null where it holds. Of alternatives
 * none of which holds, all are named together.
 */
export function firstUnmet(condition: Condition, fields: Fields): Unmet | null {
  if (holds(condition, fields)) return null;
  if ('all' in condition)
    for (const part of condition.all) {
      const unmet = firstUnmet(part, fields);
      if (unmet) return unmet;
    }
  const value = 'field' in condition ? (fields[condition.field] ?? null) : null;
  return { part: condition, value };
}

/** Why a rule fired or not, asked against a ticket as it was when it was this rule's turn. */
export function whyOf(rule: Rule, happening: Happening, ticket: Fields): Why {
  if (!rule.isOn) return { fired: false, because: 'off' };
  if (!fits(rule.trigger, happening)) return { fired: false, because: 'notAsked' };
  if (!mayHear(rule, happening)) return { fired: false, because: 'chain' };
  if (rule.teamId !== null && ticket.teamId !== rule.teamId) return { fired: false, because: 'otherTeam' };
  const unmet = firstUnmet(rule.provided, ticket);
  return unmet ? { fired: false, because: 'condition', unmet } : { fired: true };
}
