import * as z from 'zod';
import { THING_FIELDS } from '../core/estate';
import { IMPORT_FIELDS } from '../core/imports';
import { PERSON_FIELDS } from '../core/people';
import { endpoint } from './endpoint';
import { paths } from './paths';
import { idParams, idSchema, instantSchema, okSchema } from './shared';

/** What tables can be of. */
export const IMPORT_KINDS = ['tickets', 'people', 'things'] as const;
const kindSchema = z.enum(IMPORT_KINDS);
/** What a table is of. */
export type ImportKind = z.infer<typeof kindSchema>;

const fieldSchema = z.enum([...new Set([...IMPORT_FIELDS, ...PERSON_FIELDS, ...THING_FIELDS])]);
const namesSchema = z.record(z.string().max(30), z.array(z.string().max(80)).max(6));

/** How a table is read: where each field comes from, and what the choices are called in it. */
export const readingSchema = z.object({
  mapping: z.partialRecord(
    fieldSchema,
    z.union([
      z.object({ column: z.number().int().min(0).max(500) }),
      z.object({ always: z.string().max(200) }),
    ]),
  ),
  names: z.object({ impact: namesSchema, urgency: namesSchema }).default({ impact: {}, urgency: {} }),
  /** Whether new people are sent a link that lets them in. */
  isInvited: z.boolean().default(false),
});
/** Which column of a table says what. */
export type Reading = z.infer<typeof readingSchema>;

const rowProblemSchema = z.object({
  /** The line of the file on which the row begins, counted from 1. */
  line: z.number().int(),
  field: fieldSchema.nullable(),
  code: z.string(),
  value: z.string(),
});
/** What is wrong with a row of a table, and on which line. */
export type ImportProblem = z.infer<typeof rowProblemSchema>;

const importSchema = z.object({
  id: idSchema,
  kind: kindSchema,
  name: z.string(),
  at: instantSchema,
  encoding: z.string(),
  delimiter: z.string(),
  headings: z.array(z.string()),
  /** The first rows, to see what the columns hold. */
  sample: z.array(z.array(z.string())),
  rows: z.number().int(),
  state: z.enum(['arrived', 'running', 'done', 'stopped']),
  done: z.number().int(),
  written: z.number().int(),
  /** What could not be written after all, at most 500. */
  refused: z.array(rowProblemSchema),
});
/** A table that has arrived, and how far it has been written. */
export type Import = z.infer<typeof importSchema>;

/** Calls about tables of tickets, people and things. */
export const importEndpoints = {
  upload: endpoint({
    ...paths.imports.upload,
    summary:
      'Send a table of tickets, people or things (CSV in UTF-8, UTF-16 or windows-1252, or XLSX), to be looked at before anything is written',
    query: z.object({ kind: kindSchema.default('tickets') }),
    answer: importSchema,
  }),
  mine: endpoint({
    ...paths.imports.mine,
    summary: 'The tables that I sent, the newest first',
    query: z.object({ kind: kindSchema.default('tickets') }),
    answer: z.array(
      importSchema.pick({ id: true, name: true, at: true, state: true, rows: true, written: true }),
    ),
  }),
  goOn: endpoint({
    ...paths.imports.goOn,
    summary: 'Go on with writing where it was stopped',
    params: idParams,
    answer: okSchema,
  }),
  get: endpoint({
    ...paths.imports.get,
    summary: 'A table that was sent, and how far it is',
    params: idParams,
    answer: importSchema,
  }),
  check: endpoint({
    ...paths.imports.check,
    summary: 'Read every row without writing: how many would do, and what is wrong with which line',
    params: idParams,
    body: readingSchema,
    answer: z.object({
      good: z.number().int(),
      bad: z.number().int(),
      problems: z.array(rowProblemSchema),
    }),
  }),
  start: endpoint({
    ...paths.imports.start,
    summary: 'Write a ticket, a person or a thing for every row that will do, in the background',
    params: idParams,
    body: readingSchema,
    answer: okSchema,
  }),
  stop: endpoint({
    ...paths.imports.stop,
    summary: 'Stop writing; what is written stays',
    params: idParams,
    answer: okSchema,
  }),
};
