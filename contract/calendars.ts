import * as z from 'zod';
import { WEEKDAYS, type CalendarSpec } from '../core/calendar';
import { endpoint } from './endpoint';
import { paths } from './paths';
import { idParams, idSchema, instantSchema, okSchema, textSchema } from './shared';

const windowSchema = z.object({ from: z.string().max(5), to: z.string().max(5) });
/** The shape alone; what it must mean is judged by core, field by field. */
export const calendarSpecSchema = z.object({
  name: textSchema(100),
  timeZone: z.string().max(60),
  hoursPerDay: z.number(),
  weekly: z.partialRecord(z.enum(WEEKDAYS), z.array(windowSchema).max(48)),
  exceptions: z
    .array(
      z.object({
        date: z.string().max(10),
        name: z.string().max(120).optional(),
        windows: z.array(windowSchema).max(48),
      }),
    )
    .max(2000),
}) as unknown as z.ZodType<CalendarSpec>;

const usersSchema = z.object({
  teams: z.array(idSchema),
  sites: z.array(z.string()),
  targets: z.array(z.string()),
});

/** A working calendar, with who uses it. */
export const calendarSchema = z.object({
  id: idSchema,
  spec: calendarSpecSchema,
  version: z.number().int(),
  usedBy: usersSchema,
  mayEdit: z.boolean(),
});
/** A working calendar, with who uses it. */
export type Calendar = z.infer<typeof calendarSchema>;

/** What a change would move of the clocks that are going. */
export const effectSchema = z.object({
  tickets: z.number().int(),
  moved: z.number().int(),
  late: z.number().int(),
  noLongerLate: z.number().int(),
  becomeLate: z.array(
    z.object({
      number: z.number().int(),
      title: z.string(),
      target: z.string(),
      dueBefore: instantSchema.nullable(),
      dueAfter: instantSchema.nullable(),
    }),
  ),
});
/** What a change would move of the clocks that are going. */
export type Effect = z.infer<typeof effectSchema>;

/** Calls about working calendars. */
export const calendarEndpoints = {
  list: endpoint({
    ...paths.calendars.list,
    summary: 'All working calendars and who uses them',
    answer: z.array(calendarSchema),
  }),
  create: endpoint({
    ...paths.calendars.create,
    summary: 'Make a working calendar',
    body: z.object({ spec: calendarSpecSchema }),
    answer: z.object({ id: idSchema }),
  }),
  update: endpoint({
    ...paths.calendars.update,
    summary: 'Change a working calendar; every clock that runs on it follows',
    params: idParams,
    body: z.object({ version: z.number().int(), spec: calendarSpecSchema }),
    answer: z.object({ version: z.number().int() }),
  }),
  remove: endpoint({
    ...paths.calendars.remove,
    summary: 'Delete a working calendar that nobody uses',
    params: idParams,
    answer: okSchema,
  }),
  effect: endpoint({
    ...paths.calendars.effect,
    isReading: true,
    summary: 'What a change would move, without making it',
    params: idParams,
    body: z.object({ spec: calendarSpecSchema }),
    answer: effectSchema,
  }),
  read: endpoint({
    ...paths.calendars.read,
    isReading: true,
    summary: 'What an iCalendar file would bring to a calendar, without taking it in',
    params: idParams,
    body: z.object({ text: z.string().max(1_000_000), spec: calendarSpecSchema }),
    answer: z.object({ spec: calendarSpecSchema, added: z.number().int(), passedOver: z.number().int() }),
  }),
  holidayPlaces: endpoint({
    ...paths.calendars.holidayPlaces,
    summary: 'Countries and their regions that public holidays are known for',
    answer: z.array(
      z.object({
        id: z.string(),
        name: z.string(),
        regions: z.array(z.object({ id: z.string(), name: z.string() })),
      }),
    ),
  }),
  holidays: endpoint({
    ...paths.calendars.holidays,
    summary: 'Public holidays of a country or region',
    query: z.object({
      country: z.string().length(2),
      region: z.string().max(10).optional(),
      year: z.coerce.number().int().min(1970).max(2100),
      years: z.coerce.number().int().min(1).max(6).default(1),
    }),
    answer: z.array(z.object({ date: z.string(), name: z.string() })),
  }),
};
