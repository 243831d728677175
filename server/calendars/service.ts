import { nanoid } from 'nanoid';
import { checkCalendar, type CalendarSpec } from '../../core/calendar';
import { fromICalendar, ICalendarError } from '../../core/icalendar';
import { maySetUp, type Viewer } from '../../core/rights';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import { appendSetting } from '../journal/append';
import type { Listo } from '../listo';
import type { Changing } from '../unitOfWork';

export type Users = { teams: string[]; sites: string[]; targets: string[] };

/** Who uses each calendar: teams by id, sites and promises by name. */
export async function readUsers(listo: Listo): Promise<(calendarId: string) => Users> {
  const { tables } = listo.db;
  const teams = await tables.teams.find({});
  const sites = await tables.sites.find({});
  const targets = await tables.targets.find({});
  return (id) => ({
    teams: teams.filter(({ calendarId }) => calendarId === id).map((team) => team.id),
    sites: sites.filter(({ calendarId }) => calendarId === id).map(({ name }) => name),
    targets: targets
      .filter(({ definition }) => definition.calendars.some(({ calendarId }) => calendarId === id))
      .map(({ definition }) => definition.name),
  });
}

/** An administrator may change every calendar, a team administrator those that only their teams keep. */
export function mayEditCalendar(viewer: Viewer, { teams, sites }: Users): boolean {
  if (viewer.isAdministrator) return true;
  return sites.length === 0 && teams.length > 0 && teams.every((teamId) => maySetUp(viewer, teamId));
}

/** @throws what is wrong, each at its field */
export function refuseFaulty(listo: Listo, spec: CalendarSpec): void {
  const problems = checkCalendar(spec, listo.clock.now());
  if (problems.length === 0) return;
  throw new ProblemError('fieldsNotValid', {
    fields: problems.map(({ field, code }) => ({ field: `spec.${field}`, code })),
  });
}

export async function createCalendar(
  { listo, viewer, actor }: Changing,
  spec: CalendarSpec,
): Promise<{ id: string }> {
  if (!viewer.isAdministrator && !viewer.teams.some(({ teamId }) => maySetUp(viewer, teamId)))
    throw new ProblemError('forbidden');
  refuseFaulty(listo, spec);
  return change(listo, actor, async (tx) => {
    const id = nanoid(12);
    await listo.db.tables.calendars.insert({ id, spec, version: 1 }, tx);
    await appendSetting(
      { listo, tx },
      {
        by: viewer.id,
        type: 'calendarMade',
        data: { calendarId: id, name: spec.name },
      },
    );
    return { id };
  });
}

/** Changes a calendar; what runs on it is read anew from the journal. */
export async function updateCalendar(
  { listo, viewer, actor }: Changing,
  id: string,
  { version, spec }: { version: number; spec: CalendarSpec },
): Promise<{ version: number }> {
  refuseFaulty(listo, spec);
  const usersOf = await readUsers(listo);
  return change(listo, actor, async (tx) => {
    const { tables } = listo.db;
    const calendar = await tables.calendars.findOne({ id }, tx, true);
    if (!calendar) throw new ProblemError('notFound');
    if (!mayEditCalendar(viewer, usersOf(id))) throw new ProblemError('forbidden');
    if (calendar.version !== version)
      throw new ProblemError('stale', {
        differences: [{ field: 'spec', theirs: calendar.spec, yours: spec, by: null }],
      });
    await tables.calendars.update({ id }, { spec, version: version + 1 }, tx);
    await appendSetting(
      { listo, tx },
      {
        by: viewer.id,
        type: 'calendarChanged',
        changes: { spec: { from: calendar.spec, to: spec } },
        data: { calendarId: id, name: spec.name },
      },
    );
    await listo.ports.calendars.changed({ listo, tx }, { id, spec });
    return { version: version + 1 };
  });
}

export async function removeCalendar({ listo, viewer, actor }: Changing, id: string): Promise<{ ok: true }> {
  const usersOf = await readUsers(listo);
  return change(listo, actor, async (tx) => {
    const { tables } = listo.db;
    const calendar = await tables.calendars.findOne({ id }, tx, true);
    if (!calendar) throw new ProblemError('notFound');
    const users = usersOf(id);
    const isUnused = Object.values(users).every((list) => list.length === 0);
    if (!viewer.isAdministrator && !(isUnused && viewer.teams.some(({ teamId }) => maySetUp(viewer, teamId))))
      throw new ProblemError('forbidden');
    if (!isUnused) throw new ProblemError('calendarInUse', { facts: users });
    await tables.calendars.remove({ id }, tx);
    await appendSetting(
      { listo, tx },
      {
        by: viewer.id,
        type: 'calendarRemoved',
        data: { calendarId: id, name: calendar.spec.name },
      },
    );
    return OK;
  });
}

const YEARS_BACK = 1;
const YEARS_AHEAD = 4;

/** What a file would make of a calendar: its dates replaced by those of the file, the rest as it was. */
export function readFile(listo: Listo, text: string, spec: CalendarSpec) {
  const year = new Date(listo.clock.now()).getUTCFullYear();
  const range = { from: `${year - YEARS_BACK}-01-01`, to: `${year + YEARS_AHEAD}-12-31` };
  refuseFaulty(listo, spec);
  try {
    const { exceptions, weekly, passedOver } = fromICalendar(text, spec, range);
    const brought = new Set(exceptions.map(({ date }) => date));
    const kept = spec.exceptions.filter(({ date }) => !brought.has(date));
    const all = [...kept, ...exceptions].sort((a, b) => (a.date < b.date ? -1 : 1));
    return {
      spec: { ...spec, ...(weekly && { weekly }), exceptions: all },
      added: exceptions.length,
      passedOver,
    };
  } catch (error) {
    if (!(error instanceof ICalendarError)) throw error;
    const { line, fault, text: wrong } = error;
    throw new ProblemError('icalendarNotRead', { facts: { line, fault, text: wrong.slice(0, 200) } });
  }
}
