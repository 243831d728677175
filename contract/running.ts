import * as z from 'zod';
import { PARTS, STANDINGS } from '../core/running';
import { doorPaths } from './doorPaths';
import { endpoint } from './endpoint';
import { instantSchema } from './shared';

const partSchema = z.object({
  part: z.enum(PARTS),
  standing: z.enum(STANDINGS),
  waiting: z.number().int(),
  /** For how long the one that waits longest has waited. */
  longestMs: z.number().int(),
});
/** What has to keep up by itself, and whether it does. */
export type RunningPart = z.infer<typeof partSchema>;

const processSchema = z.object({
  /** What this process does: answers pages, does what follows from them, or both. */
  roles: z.array(z.enum(['pages', 'work'])),
  sinceMs: z.number().int(),
  memoryBytes: z.number().int(),
  /** Browsers that are told live. */
  streams: z.number().int(),
});

const runningSchema = z.object({
  at: instantSchema,
  standing: z.enum(STANDINGS),
  parts: z.array(partSchema),
  process: processSchema,
  /** Null: a single server. */
  cluster: z.object({ nodes: z.number().int(), used: z.string() }).nullable(),
  /** What is cleared by itself, and after how many days. */
  cleared: z.array(z.object({ table: z.string(), days: z.number().int() })),
});
/** How Listo runs at this moment. */
export type Running = z.infer<typeof runningSchema>;

/** Calls about how it runs. */
export const runningEndpoints = {
  get: endpoint({
    ...doorPaths.running.get,
    summary: 'How it runs: what waits, and since when',
    answer: runningSchema,
  }),
};
