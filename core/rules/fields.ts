import type { Condition } from '../conditions';
import {
  checkCondition,
  getListField,
  LIST_FIELD_NAMES,
  type ConditionProblem,
  type ListFieldName,
} from '../worklist';

/** What depends on who looks, or on a clock that goes by itself: a rule hears of these as happenings instead. */
const NOT_ASKED = new Set<ListFieldName>(['work', 'isLate', 'isDueToday', 'alsoToldIds']);

/** The facts of a ticket that rules may ask for. */
export const RULE_FIELDS = LIST_FIELD_NAMES.filter(
  (name) => !NOT_ASKED.has(name) && getListField(name)!.kind !== 'instant',
);

/** The facts that a rule may set. Whom a ticket is with, and how it stands, is given, held and ended instead. */
export const SET_FIELDS = ['priority', 'impact', 'urgency', 'progressId', 'place', 'title'] as const;
/** A fact that a rule may set. */
export type SetField = (typeof SET_FIELDS)[number];

/** Stand for whoever looks, which nobody does when a rule is asked. */
const OF_A_VIEWER = /^@(me|myTeams|myGroups)$/;

/** What is wrong with the condition of a rule: facts that it may not ask for, and values that stand for a viewer. */
export function checkProvided(condition: Condition): ConditionProblem[] {
  const own: ConditionProblem[] = [];
  function look(part: Condition): void {
    if ('all' in part || 'any' in part) {
      for (const each of 'all' in part ? part.all : part.any) look(each);
      return;
    }
    if ('not' in part) {
      look(part.not);
      return;
    }
    if (!RULE_FIELDS.some((name) => name === part.field))
      own.push({ code: 'unknownField', field: part.field });
    const values: unknown[] = 'value' in part ? [part.value].flat() : [];
    if (values.some((value) => typeof value === 'string' && OF_A_VIEWER.test(value)))
      own.push({ code: 'wrongValue', field: part.field });
  }
  look(condition);
  return own.length > 0 ? own : checkCondition(condition, { withWords: true });
}
