import { readDuration } from '../calendar';
import { inOrder } from './order';
import { changesOf } from './rulesFor';
import { timesOf } from './times';
import type { Effect, Rule } from './types';

/** What keeps a rule from being saved. */
export type RuleFault =
  'sameBeforeAndAfter' | 'noEffect' | 'badDuration' | 'badTime' | 'unknownZone' | 'noWords' | 'nobody';

/** Nothing waits longer than this: instants further away are none that can be kept. */
const MOST_DAYS = 3_650;

const isDuration = (text: string): boolean => {
  const parts = readDuration(text);
  if (parts === null) return false;
  const days = parts.days + parts.hours / 24 + parts.minutes / 1_440 + parts.seconds / 86_400;
  return days > 0 && days <= MOST_DAYS;
};

function faultOfTime(rule: Rule): RuleFault | null {
  const { trigger } = rule;
  if (trigger.on !== 'time') return null;
  try {
    new Intl.DateTimeFormat('en', { timeZone: trigger.zone });
  } catch {
    return 'unknownZone';
  }
  try {
    timesOf(rule, 0, 1);
    return null;
  } catch (error) {
    if (error instanceof RangeError) return 'badTime';
    throw error;
  }
}

function faultOfEffect(effect: Effect): RuleFault | null {
  if ('words' in effect && !effect.words.en.trim() && !effect.words.pt.trim()) return 'noWords';
  if (effect.do === 'hold' && effect.until !== undefined && !isDuration(effect.until)) return 'badDuration';
  if (effect.do === 'tell' && effect.whom.length + (effect.personIds?.length ?? 0) === 0) return 'nobody';
  if (effect.do === 'alsoTell' && effect.personIds.length === 0) return 'nobody';
  return null;
}

/** All that is wrong with a rule as it is written. */
export function checkRule(rule: Rule): RuleFault[] {
  const { trigger, effects } = rule;
  const faults: (RuleFault | null)[] = [
    'field' in trigger && trigger.from !== undefined && trigger.from === trigger.to
      ? 'sameBeforeAndAfter'
      : null,
    effects.length === 0 ? 'noEffect' : null,
    trigger.on === 'silence' && !isDuration(trigger.after) ? 'badDuration' : null,
    faultOfTime(rule),
    ...effects.map(faultOfEffect),
  ];
  return [...new Set(faults.filter((fault) => fault !== null))];
}

/**
 * The rings that a rule would close: rules each of which writes a field whose change the next one hears of, back to the
 * rule itself. While they run none goes round; here they are shown while the rule is written.
 */
export function findRings(rules: Rule[], id: string): string[][] {
  const sorted = [...rules].filter(({ isOn }) => isOn).sort(inOrder);
  const written = new Map(
    sorted.map((rule) => [
      rule.id,
      rule.effects.flatMap((effect) => Object.entries(changesOf(effect) ?? {})),
    ]),
  );
  const hears = ({ trigger }: Rule, by: string): boolean =>
    'field' in trigger &&
    written
      .get(by)!
      .some(
        ([field, to]) =>
          field === trigger.field &&
          (trigger.to === undefined || trigger.to === to) &&
          (trigger.from === undefined || trigger.from !== to),
      );
  const rings: string[][] = [];
  // Each rule is reached once, by its shortest way; what is reached is gone through in turn.
  const wayTo = new Map(written.has(id) ? [[id, [id]]] : []);
  for (const [at, way] of wayTo)
    for (const rule of sorted) {
      if (!hears(rule, at)) continue;
      if (rule.id === id) rings.push(way);
      else if (!wayTo.has(rule.id)) wayTo.set(rule.id, [...way, rule.id]);
    }
  return rings;
}
