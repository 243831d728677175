import { toTest, type Fields, type Scalar } from '../conditions';
import { inOrder, mayHear } from './order';
import type { Effect, Happening, Rule, Trigger } from './types';
import './words';

/** A rule that does something, and what. */
export type Fired = { ruleId: string; effects: Effect[] };

/** What comes about by itself is asked for elsewhere. */
const NEVER_HAPPENS = new Set<string>(['silence', 'time']);

/** Whether a trigger hears of what happened. Silence and time are no happenings. */
export function fits(trigger: Trigger, { kind, changes }: Happening): boolean {
  if (!('field' in trigger)) return trigger.on === kind && !NEVER_HAPPENS.has(trigger.on);
  const { field, from, to } = trigger;
  return changes.some(
    (change) =>
      change.field === field &&
      change.before !== change.after &&
      (from === undefined || change.before === from) &&
      (to === undefined || change.after === to),
  );
}

/** What an effect makes of the fields of a ticket; null where it speaks of none. */
export function changesOf(effect: Effect): Record<string, Scalar> | null {
  switch (effect.do) {
    case 'set':
      return { [effect.field]: effect.to };
    case 'give':
      return {
        teamId: effect.teamId,
        groupId: effect.groupId ?? null,
        assigneeId: effect.personId ?? null,
      };
    case 'hold':
      return { state: 'held', heldFor: effect.for };
    case 'end':
      return { state: effect.as };
    default:
      return null;
  }
}

/** What does something even where every field is as it would leave it. */
const isNeverEmpty = (effect: Effect): boolean =>
  effect.do === 'end' || (effect.do === 'hold' && effect.until !== undefined);

/** Lets effects come about in turn on the fields. @returns those that change something */
export function apply(effects: Effect[], fields: Fields): Effect[] {
  return effects.filter((effect) => {
    const changes = changesOf(effect);
    if (!changes) return true;
    const changed = Object.entries(changes).filter(([field, to]) => (fields[field] ?? null) !== to);
    Object.assign(fields, changes);
    return changed.length > 0 || isNeverEmpty(effect);
  });
}

/**
 * Which rules fire upon what happened, in their order, and what they do: each is asked against the ticket as those before
 * it leave it. A rule whose effects change nothing fires, but is not told.
 * @param ticket its fields as they are now; absent is null
 */
export function rulesFor(rules: Rule[], happening: Happening, ticket: Fields): Fired[] {
  const heard: Rule[] = [];
  const { kind } = happening;
  for (const rule of rules) {
    const { on } = rule.trigger;
    // Most rules hear of something else: that is seen first, since it is quick.
    if (on !== kind && on !== 'fieldChanged') continue;
    if (rule.isOn && fits(rule.trigger, happening) && mayHear(rule, happening)) heard.push(rule);
  }
  heard.sort(inOrder);
  if (heard.length === 0) return [];
  const fields: Fields = Object.assign(Object.create(null) as Fields, ticket);
  const fired: Fired[] = [];
  for (const rule of heard) {
    if (rule.teamId !== null && fields.teamId !== rule.teamId) continue;
    if (!toTest(rule.provided)(fields)) continue;
    const effects = apply(rule.effects, fields);
    if (effects.length > 0) fired.push({ ruleId: rule.id, effects });
    if (rule.isLast) break;
  }
  return fired;
}
