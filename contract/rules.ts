import * as z from 'zod';
import type { Condition } from '../core/conditions';
import { EVENT_KINDS, SET_FIELDS, type Effect, type Trigger, type Why } from '../core/rules';
import { READERS } from '../core/telling';
import { endpoint } from './endpoint';
import { paths } from './paths';
import {
  idParams,
  idSchema,
  instantSchema,
  localTextSchema,
  numberParams,
  okSchema,
  personRefSchema,
} from './shared';
import { conditionSchema } from './worklists';

const scalarSchema = z.union([z.string().max(500), z.number(), z.boolean(), z.null()]);
const fieldSchema = z.string().max(60);
const durationSchema = z.string().max(40);
const wordsSchema = localTextSchema.refine(({ en, pt }) => Math.max(en.length, pt.length) <= 4_000, {
  error: 'tooLong',
});
const peopleSchema = z.array(idSchema).max(50);

/** A condition of a rule: as of lists, and words in texts. */
export const providedSchema: z.ZodType<Condition> = z.lazy(() =>
  z.union([
    z.strictObject({ all: z.array(providedSchema).max(60) }),
    z.strictObject({ any: z.array(providedSchema).max(60) }),
    z.strictObject({ not: providedSchema }),
    z.strictObject({
      field: fieldSchema,
      op: z.enum(['hasAny', 'hasAll']),
      value: z.array(z.string().min(1).max(100)).min(1).max(60),
    }),
    conditionSchema,
  ]),
);

/** When a rule is asked. */
export const triggerSchema = z.union([
  z.strictObject({
    on: z.literal('fieldChanged'),
    field: fieldSchema,
    from: scalarSchema.optional(),
    to: scalarSchema.optional(),
  }),
  z.strictObject({ on: z.enum(EVENT_KINDS) }),
  z.strictObject({
    on: z.literal('silence'),
    since: z.enum(EVENT_KINDS),
    unless: z.array(z.enum(EVENT_KINDS)).max(EVENT_KINDS.length),
    after: durationSchema,
    calendar: idSchema.nullable(),
  }),
  z.strictObject({ on: z.literal('time'), every: z.string().max(300), zone: z.string().max(60) }),
]) as z.ZodType<Trigger>;

/** What a rule does: those of core that are carried out today. */
export const ruleEffectSchema = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('set'), field: z.enum(SET_FIELDS), to: scalarSchema }),
  z.strictObject({
    do: z.literal('give'),
    teamId: idSchema,
    groupId: idSchema.optional(),
    personId: idSchema.optional(),
  }),
  z.strictObject({
    do: z.literal('hold'),
    for: z.enum(['requester', 'supplier', 'date']),
    until: durationSchema.optional(),
  }),
  z.strictObject({
    do: z.literal('tell'),
    whom: z.array(z.enum(READERS).exclude(['mentioned'])).max(READERS.length),
    personIds: peopleSchema.optional(),
    words: wordsSchema,
  }),
  z.strictObject({ do: z.literal('answer'), words: wordsSchema }),
  z.strictObject({ do: z.literal('note'), words: wordsSchema }),
  z.strictObject({ do: z.literal('alsoTell'), personIds: peopleSchema }),
  z.strictObject({ do: z.literal('room'), roomId: idSchema, words: wordsSchema }),
  z.strictObject({ do: z.literal('end'), as: z.enum(['done', 'withdrawn']), words: wordsSchema }),
]);
/** One thing that a rule does. */
export type RuleEffect = z.infer<typeof ruleEffectSchema>;

/** A rule as it is written. */
export const ruleBodySchema = z.object({
  name: localTextSchema.refine(({ en, pt }) => en.length <= 120 && pt.length <= 120, { error: 'tooLong' }),
  teamId: idSchema.nullable(),
  trigger: triggerSchema,
  provided: providedSchema,
  effects: z.array(ruleEffectSchema).max(12),
  isLast: z.boolean(),
});
/** A rule as it is written. */
export type RuleBody = z.infer<typeof ruleBodySchema>;

/** A rule with how it fares. */
export const ruleSchema = ruleBodySchema.extend({
  id: idSchema,
  owner: personRefSchema.nullable(),
  isOn: z.boolean(),
  version: z.number().int(),
  mayEdit: z.boolean(),
  failures: z.number().int(),
  failedAt: instantSchema.nullable(),
  failedWith: z.string().nullable(),
  /** How often it fired in the last 30 days, and when last. */
  fired: z.number().int(),
  lastAt: instantSchema.nullable(),
  /** The rings that it would close with others, each a way of rules by id. */
  rings: z.array(z.array(idSchema)),
});
/** A rule with how it fares. */
export type RuleView = z.infer<typeof ruleSchema>;

const effectsSchema = z.array(z.custom<Effect>());
const firedSchema = z.object({
  number: z.number().int(),
  title: z.string(),
  at: instantSchema,
  effects: effectsSchema,
});
const otherSchema = z.object({ id: idSchema, name: localTextSchema, count: z.number().int() });

/** What a rule would have done over the past. */
export const ruleTrialSchema = z.object({
  /** How many entries of the journal were gone through, and whether there were more. */
  entries: z.number().int(),
  isCut: z.boolean(),
  count: z.number().int(),
  tickets: z.number().int(),
  /** The latest; of tickets that one may not read nothing is counted either. */
  fired: z.array(firedSchema),
  /** Rules that would have fired beside it, and those that would no longer. */
  more: z.array(otherSchema),
  fewer: z.array(otherSchema),
  /** Rules that are asked before it, and after it. */
  before: z.array(z.object({ id: idSchema, name: localTextSchema })),
  after: z.array(z.object({ id: idSchema, name: localTextSchema })),
});
/** What a rule would have done over the past. */
export type RuleTrial = z.infer<typeof ruleTrialSchema>;

/** A rule on a ticket: when it was asked, and why it fired or not. */
export const ruleOnTicketSchema = z.object({
  rule: z.object({ id: idSchema, name: localTextSchema, isOn: z.boolean() }),
  fired: z.array(
    z.object({
      at: instantSchema,
      did: z.array(z.object({ do: z.string(), problem: z.string().nullable() })),
    }),
  ),
  asked: z.array(
    z.object({
      entryId: z.string(),
      at: instantSchema,
      kind: z.enum(EVENT_KINDS),
      why: z.custom<Why>(),
    }),
  ),
});
/** A rule on a ticket: when it was asked, and why it fired or not. */
export type RuleOnTicket = z.infer<typeof ruleOnTicketSchema>;

const versioned = z.object({ version: z.number().int() });

/** Calls about rules. */
export const ruleEndpoints = {
  list: endpoint({
    ...paths.rules.list,
    summary: 'All rules in their order, with how they fare',
    answer: z.array(ruleSchema),
  }),
  create: endpoint({
    ...paths.rules.create,
    summary: 'Make a rule, last in order and switched off',
    body: ruleBodySchema,
    answer: z.object({ id: idSchema }),
  }),
  update: endpoint({
    ...paths.rules.update,
    summary: 'Change what a rule says',
    params: idParams,
    body: ruleBodySchema.extend({ version: z.number().int() }),
    answer: versioned,
  }),
  switch: endpoint({
    ...paths.rules.switch,
    summary: 'Switch a rule on or off; silence counts from what happens after it is on',
    params: idParams,
    body: z.object({ version: z.number().int(), isOn: z.boolean() }),
    answer: versioned,
  }),
  order: endpoint({
    ...paths.rules.order,
    summary: 'Put the rules in another order',
    body: z.object({ ids: z.array(idSchema).max(2_000) }),
    answer: okSchema,
  }),
  orderEffect: endpoint({
    ...paths.rules.orderEffect,
    isReading: true,
    summary: 'What another order would have made otherwise over the last 30 days; nothing is written',
    body: z.object({ ids: z.array(idSchema).max(2_000) }),
    answer: z.object({
      /** At how many entries, of how many, something else would have been done. */
      otherwise: z.number().int(),
      entries: z.number().int(),
      more: z.array(otherSchema),
      fewer: z.array(otherSchema),
    }),
  }),
  remove: endpoint({
    ...paths.rules.remove,
    summary: 'Do away with a rule; what it did stays',
    params: idParams,
    answer: okSchema,
  }),
  trial: endpoint({
    ...paths.rules.trial,
    isReading: true,
    summary: 'What a rule as it is written would have done over the last days; nothing is written',
    body: z.object({
      /** The rule in whose place it would stand; null: a new one, last in order. */
      id: idSchema.nullable(),
      rule: ruleBodySchema,
      days: z.number().int().min(1).max(90),
    }),
    answer: ruleTrialSchema,
  }),
  ofTicket: endpoint({
    ...paths.rules.ofTicket,
    summary: 'Each rule of a ticket: when it was asked, whether it fired, and else why not',
    params: numberParams,
    answer: z.array(ruleOnTicketSchema),
  }),
  undo: endpoint({
    ...paths.rules.undo,
    summary: 'Put back what a rule changed, where it is still so',
    params: z.object({
      number: z.coerce.number().int().positive(),
      entryId: z.coerce.number().int().positive(),
    }),
    body: z.object({}),
    answer: okSchema,
  }),
};
