import * as z from 'zod';
import { endpoint } from './endpoint';
import { paths } from './paths';
import { idSchema, instantSchema, localTextSchema } from './shared';

const teamFiguresSchema = z.object({
  id: idSchema,
  name: localTextSchema,
  open: z.number().int(),
  unassigned: z.number().int(),
  held: z.number().int(),
  /** Past due. What is held waits for others and counts there alone. */
  late: z.number().int(),
  /** Falls due before the day is over, neither late yet nor held. */
  dueToday: z.number().int(),
  /** Large requests that the team ranks. */
  ranked: z.number().int(),
  /** Of what was resolved in the last seven days and had a promise of resolution: how much, and how much met every one. */
  promised: z.number().int(),
  inTime: z.number().int(),
  /** What requesters said in the last seven days. */
  ratings: z.number().int(),
  rating: z.number().nullable(),
  /** The last fourteen days, the earliest first: what came in and what was resolved. */
  days: z.array(z.object({ at: instantSchema, arrived: z.number().int(), resolved: z.number().int() })),
});
/** The numbers on a team's first page. */
export type TeamFigures = z.infer<typeof teamFiguresSchema>;

/** Calls about figures. */
export const figureEndpoints = {
  today: endpoint({
    ...paths.figures.today,
    summary: 'How my teams stand today',
    answer: z.array(teamFiguresSchema),
  }),
};
