import type { Fields } from '../conditions';
import { listFieldsAfter, rulesForEntry, type Occurrence } from './record';
import { changesOf, fits, type Fired } from './rulesFor';
import { dueAtOf, silences, type RuleCalendars } from './silences';
import { timesOf } from './times';
import type { Effect, EventKind, FieldChange, Happening, Rule } from './types';
import { whyOf, type Why } from './why';
import { toTest } from '../conditions';

/** A ticket with what happened to it in a stretch of the past, the oldest first, and its fields as they are now. */
export type PastTicket = { number: number; now: Fields; entries: Occurrence[] };

/** A time at which a rule would have fired. */
export type WouldFire = { number: number; at: number; effects: Effect[] };

/** What a rule would have done over the past, and what that would have set off or kept from happening. */
export type Trial = {
  fired: WouldFire[];
  /** Other rules that would then have fired, and those that would no longer: how often. */
  more: Record<string, number>;
  fewer: Record<string, number>;
};

/** Between which instants a rule is tried. */
type Stretch = { from: number; to: number };

/** What an effect is to the rules that hear of it; null: nothing. */
function followsFrom(effect: Effect, before: Fields): { kinds: EventKind[]; changes: FieldChange[] } | null {
  const made = changesOf(effect);
  if (!made) return null;
  const changes = Object.entries(made)
    .map(([field, after]) => ({ field, before: (before[field] ?? null) as FieldChange['before'], after }))
    .filter((change) => change.before !== change.after);
  const kind: Record<string, EventKind> = { give: 'givenOn', hold: 'held', set: 'fieldChanged' };
  const main = effect.do === 'end' ? effect.as : kind[effect.do]!;
  const isStated = changes.some(({ field }) => field === 'state');
  const kinds: EventKind[] = [main, ...(isStated ? (['stateChanged'] as const) : []), 'fieldChanged'];
  return { kinds: [...new Set(kinds)], changes };
}

/** Counts of rules, by id. */
type Counts = Record<string, number>;
const add = (counts: Counts, id: string, by = 1): void => {
  counts[id] = (counts[id] ?? 0) + by;
};

/** The other rules that hear of what a rule did at once. */
function countChain(
  rule: Rule,
  others: Rule[],
  at: Omit<Occurrence, 'kinds' | 'changes'> & { fields: Fields; effects: Effect[] },
): Counts {
  const counts: Counts = {};
  const fields = { ...at.fields };
  for (const effect of at.effects) {
    const follows = followsFrom(effect, fields);
    if (!follows) continue;
    Object.assign(fields, changesOf(effect));
    const occurrence = { entryId: at.entryId, at: at.at, byRules: [...at.byRules, rule.id], ...follows };
    for (const { ruleId } of rulesForEntry(others, occurrence, fields)) add(counts, ruleId);
  }
  return counts;
}

/** The fields that a ticket had at an instant: as the last entry until then left them. */
function fieldsAt({ entries }: PastTicket, after: Fields[], at: number): Fields | null {
  const i = entries.findLastIndex((entry) => entry.at <= at);
  return i === -1 ? null : after[i]!;
}

/** The instants at which silence would have been due on a ticket, with the entry that each began with. */
function listSilences(rule: Rule, { entries }: PastTicket, calendars: RuleCalendars, { from, to }: Stretch) {
  const { trigger } = rule;
  if (trigger.on !== 'silence') return [];
  const history = entries.flatMap((entry) => entry.kinds.map((kind): Happening => ({ ...entry, kind })));
  return history
    .filter(({ kind }) => kind === trigger.since)
    .flatMap((since) => {
      const dueAt = dueAtOf(trigger, since.at, calendars);
      if (dueAt === null || dueAt < from || dueAt >= to) return [];
      const held = silences([{ ...rule, isOn: true }], history, calendars, dueAt, []);
      return held.some((each) => each.since === since.entryId) ? [{ at: dueAt, since }] : [];
    });
}

/** When a rule that goes by itself would have been asked on a ticket, and what it would have been asked with. */
function listMoments(rule: Rule, ticket: PastTicket, calendars: RuleCalendars, stretch: Stretch) {
  if (rule.trigger.on === 'silence')
    return listSilences(rule, ticket, calendars, stretch).map(({ at, since }) => ({
      at,
      byRules: since.byRules,
    }));
  if (rule.trigger.on === 'time')
    return timesOf(rule, stretch.from, stretch.to).map((at) => ({ at, byRules: [] }));
  return [];
}

const OPEN = new Set<unknown>(['received', 'inWork', 'held']);

/**
 * Tries a rule on one ticket’s past: how often it would have fired, and what that would have set off. Rules that hear of
 * happenings are asked with the others in their order; those that go by silence or by time are asked at their instants.
 * @param others the rules that are on, without this one
 */
export function tryOnTicket(
  rule: Rule,
  { others, calendars, stretch }: { others: Rule[]; calendars: RuleCalendars; stretch: Stretch },
  ticket: PastTicket,
): Trial {
  const on = { ...rule, isOn: true };
  const trial: Trial = { fired: [], more: {}, fewer: {} };
  const after = listFieldsAfter(ticket.now, ticket.entries);
  const fire = (at: Omit<Occurrence, 'kinds' | 'changes'>, fields: Fields, effects: Effect[]): void => {
    trial.fired.push({ number: ticket.number, at: at.at, effects });
    const chain = countChain(on, others, { ...at, fields, effects });
    for (const [id, count] of Object.entries(chain)) add(trial.more, id, count);
  };
  ticket.entries.forEach((entry, i) => {
    if (entry.at < stretch.from || entry.at >= stretch.to) return;
    if (!entry.kinds.some((kind) => fits(on.trigger, { ...entry, kind }))) return;
    const before = new Set(rulesForEntry(others, entry, after[i]!).map(({ ruleId }) => ruleId));
    const now = rulesForEntry([...others, on], entry, after[i]!);
    for (const { ruleId, effects } of now) {
      if (ruleId === on.id) fire(entry, after[i]!, effects);
      else if (!before.delete(ruleId)) add(trial.more, ruleId);
    }
    for (const ruleId of before) add(trial.fewer, ruleId);
  });
  for (const { at, byRules } of listMoments(on, ticket, calendars, stretch)) {
    const fields = fieldsAt(ticket, after, at);
    if (!fields || (on.trigger.on === 'time' && !OPEN.has(fields.state))) continue;
    const effects = effectsOn(on, fields);
    if (effects.length > 0) fire({ entryId: '', at, byRules }, fields, effects);
  }
  return trial;
}

/** What a rule that goes by silence or by time does to a ticket, asked of its team and its condition; nothing: it does not fit. */
export function effectsOn(rule: Rule, fields: Fields): Effect[] {
  if (rule.teamId !== null && fields.teamId !== rule.teamId) return [];
  if (!toTest(rule.provided)(fields)) return [];
  const asked = { ...rule, teamId: null, trigger: { on: 'received' as const }, isOn: true };
  const happening: Happening = { entryId: '', kind: 'received', at: 0, changes: [], byRules: [] };
  return rulesForEntry([asked], { ...happening, kinds: ['received'] }, fields)[0]?.effects ?? [];
}

/** Why a rule fired or not at an entry of a ticket. */
export type AskedAt = { entryId: string; at: number; kind: EventKind; why: Why };

/** Each time that something happened on a ticket that a rule hears of: whether it fired, and else what kept it. */
export function explainOnTicket(rule: Rule, { now, entries }: PastTicket): AskedAt[] {
  const after = listFieldsAfter(now, entries);
  return entries.flatMap((entry, i) => {
    const kind = entry.kinds.find((each) => fits(rule.trigger, { ...entry, kind: each }));
    if (kind === undefined) return [];
    return [{ entryId: entry.entryId, at: entry.at, kind, why: whyOf(rule, { ...entry, kind }, after[i]!) }];
  });
}

/** What another order of rules would have made otherwise: for each rule how often it would have fired more and less. */
export type OrderEffect = { more: Counts; fewer: Counts; otherwise: number };

/**
 * Asks the rules about one ticket’s past in two orders. `otherwise`: at how many entries what is done would have differed,
 * be it only in its order.
 * @param before the rules in the order that holds
 * @param after the same rules in another order
 */
export function compareOrders(
  { before, after, stretch: { from, to } }: { before: Rule[]; after: Rule[]; stretch: Stretch },
  ticket: PastTicket,
): OrderEffect {
  const effect: OrderEffect = { more: {}, fewer: {}, otherwise: 0 };
  const fields = listFieldsAfter(ticket.now, ticket.entries);
  ticket.entries.forEach((entry, i) => {
    if (entry.at < from || entry.at >= to) return;
    const [one, other] = [before, after].map((rules) => rulesForEntry(rules, entry, fields[i]!)) as [
      Fired[],
      Fired[],
    ];
    if (JSON.stringify(one) === JSON.stringify(other)) return;
    effect.otherwise++;
    const isIn = (all: Fired[], id: string): boolean => all.some(({ ruleId }) => ruleId === id);
    for (const { ruleId } of one) if (!isIn(other, ruleId)) add(effect.fewer, ruleId);
    for (const { ruleId } of other) if (!isIn(one, ruleId)) add(effect.more, ruleId);
  });
  return effect;
}
