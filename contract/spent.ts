import * as z from 'zod';
import { SPENT_ON } from '../core/spent';
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

const entrySchema = z.object({
  id: idSchema,
  person: personRefSchema.nullable(),
  startedAt: instantSchema,
  /** Null while its timer runs. */
  minutes: z.number().int().nullable(),
  category: z.enum(SPENT_ON),
  note: z.string(),
  isByHand: z.boolean(),
  isMine: z.boolean(),
});
/** Time that was spent, in minutes. */
export type SpentEntry = z.infer<typeof entrySchema>;

const timerSchema = z.object({
  id: idSchema,
  number: z.number().int(),
  title: z.string(),
  startedAt: instantSchema,
  /** It ran so long that it was left on. */
  isLeftOn: z.boolean(),
});

const writtenSchema = z.object({
  minutes: z.number().int(),
  startedAt: instantSchema,
  category: z.enum(SPENT_ON),
  note: z.string().max(500).default(''),
});

/** What time spent is added up by. */
export const SUMS_BY = ['person', 'service', 'costCentre', 'ticket', 'category'] as const;

/** Calls about time spent. */
export const spentEndpoints = {
  timer: endpoint({
    ...paths.spent.timer,
    summary: 'My running timer, if there is one',
    answer: z.object({ timer: timerSchema.nullable() }),
  }),
  start: endpoint({
    ...paths.spent.start,
    isForPeople: true,
    summary: 'Start my timer on a ticket; one that runs elsewhere stops',
    params: numberParams,
    answer: z.object({ id: idSchema, stopped: z.number().int().nullable() }),
  }),
  stop: endpoint({
    ...paths.spent.stop,
    isForPeople: true,
    summary: 'Stop my timer; one that was left on asks how long it was really',
    body: z.object({
      minutes: z.number().int().optional(),
      category: z.enum(SPENT_ON).default('working'),
      note: z.string().max(500).default(''),
    }),
    answer: z.object({ minutes: z.number().int() }),
  }),
  list: endpoint({
    ...paths.spent.list,
    summary: 'Time spent on a ticket, and its estimate',
    params: numberParams,
    answer: z.object({
      entries: z.array(entrySchema),
      minutes: z.number().int(),
      estimate: z.number().int().nullable(),
    }),
  }),
  add: endpoint({
    ...paths.spent.add,
    isForPeople: true,
    summary: 'Add time by hand; it is marked as such',
    params: numberParams,
    body: writtenSchema,
    answer: z.object({ id: idSchema }),
  }),
  change: endpoint({
    ...paths.spent.change,
    summary: 'Change time of mine; it is then by hand',
    params: idParams,
    body: writtenSchema,
    answer: okSchema,
  }),
  remove: endpoint({
    ...paths.spent.remove,
    summary: 'Remove time of mine',
    params: idParams,
    answer: okSchema,
  }),
  estimate: endpoint({
    ...paths.spent.estimate,
    summary: 'Say how long a ticket should take, in minutes',
    params: numberParams,
    body: z.object({ minutes: z.number().int().min(1).max(100_000).nullable() }),
    answer: okSchema,
  }),
  sums: endpoint({
    ...paths.spent.sums,
    summary: 'Time spent in my teams, summed by person, service, cost centre, ticket or category',
    query: z.object({ by: z.enum(SUMS_BY), from: z.coerce.number().int(), to: z.coerce.number().int() }),
    answer: z.array(
      z.object({
        key: z.string(),
        name: localTextSchema,
        minutes: z.number().int(),
        byHand: z.number().int(),
      }),
    ),
  }),
};
