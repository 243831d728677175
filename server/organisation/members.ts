import { nanoid } from 'nanoid';
import { UnknownTimeZone, compileCalendar } from '../../core/calendar';
import { maySetUp, type TeamRole } from '../../core/rights';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import { appendSetting } from '../journal/append';
import { giveBack } from '../routing/giveBack';
import { forgetViewers } from '../sessions/viewer';
import type { Changing, UnitOfWork } from '../unitOfWork';

const refuse = (field: string, code = 'notAChoice'): ProblemError =>
  new ProblemError('fieldsNotValid', { fields: [{ field, code }] });

type Membership = { personId: string; teamId: string };
/** `by`: who says so; null: it came about by itself. */
type Said = Membership & { by: string | null };
type Place = { role: TeamRole; groupId: string | null };

/** Gives someone a place in a team, which is there as they are. */
export async function setPlace(
  { listo, tx }: UnitOfWork,
  { personId, teamId, by }: Said,
  { role, groupId }: Place,
): Promise<void> {
  const { members } = listo.db.tables;
  const member = await members.findOne({ teamId, personId }, tx, true);
  if (member?.role === role && member.groupId === groupId) return;
  if (member) await members.update({ teamId, personId }, { role, groupId }, tx);
  else await members.insert({ teamId, personId, role, groupId }, tx);
  const data = { personId, teamIds: [teamId], role };
  await appendSetting({ listo, tx }, { by, type: 'memberSet', data });
}

/** Takes someone's place in a team away: what they have of its work goes back to it. @throws ProblemError notFound */
export async function takeOut({ listo, tx }: UnitOfWork, { personId, teamId, by }: Said): Promise<void> {
  const { tables, select } = listo.db;
  if ((await tables.members.remove({ teamId, personId }, tx)) === 0) throw new ProblemError('notFound');
  const held = await select<{ number: number }>(
    `SELECT number FROM tickets WHERE assigneeId = :personId AND teamId = :teamId
       AND state IN ('received', 'inWork', 'held')`,
    { personId, teamId },
    tx,
  );
  const numbers = held.map(({ number }) => number);
  await giveBack({ listo, tx }, { personId, numbers }, 'leftBehind');
  const data = { personId, teamIds: [teamId] };
  await appendSetting({ listo, tx }, { by, type: 'memberGone', data });
}

/** Takes someone into a team, or gives them another role or group in it. */
export async function setMember(
  { listo, viewer, actor }: Changing,
  { personId, teamId }: Membership,
  place: Place,
): Promise<typeof OK> {
  if (!maySetUp(viewer, teamId)) throw new ProblemError('forbidden');
  const { tables } = listo.db;
  await change(listo, actor, async (tx) => {
    const person = await tables.people.findOne({ id: personId, leftAt: null }, tx);
    if (!person || !(await tables.teams.findOne({ id: teamId }, tx))) throw new ProblemError('notFound');
    if (place.groupId !== null && !(await tables.groups.findOne({ id: place.groupId, teamId }, tx)))
      throw refuse('groupId');
    await setPlace({ listo, tx }, { personId, teamId, by: viewer.id }, place);
  });
  forgetViewers(listo);
  return OK;
}

/** Takes someone out of a team: what they have of its work goes back to it. */
export async function removeMember(
  { listo, viewer, actor }: Changing,
  { personId, teamId }: Membership,
): Promise<typeof OK> {
  if (!maySetUp(viewer, teamId)) throw new ProblemError('forbidden');
  await change(listo, actor, (tx) => takeOut({ listo, tx }, { personId, teamId, by: viewer.id }));
  forgetViewers(listo);
  return OK;
}

/** Makes a group of a team. */
export async function createGroup(
  { listo, viewer, actor }: Changing,
  teamId: string,
  name: string,
): Promise<{ id: string }> {
  if (!maySetUp(viewer, teamId)) throw new ProblemError('forbidden');
  const { tables } = listo.db;
  return change(listo, actor, async (tx) => {
    if (!(await tables.teams.findOne({ id: teamId }, tx, true))) throw new ProblemError('notFound');
    const groups = await tables.groups.find({ teamId }, { transaction: tx });
    if (groups.some((group) => group.name.toLowerCase() === name.trim().toLowerCase()))
      throw refuse('name', 'taken');
    const id = nanoid(12);
    await tables.groups.insert({ id, teamId, name: name.trim() }, tx);
    await appendSetting({ listo, tx }, { by: viewer.id, type: 'groupMade', data: { teamId, name } });
    return { id };
  });
}

/** Makes a site, in its zone and on its calendar. */
export async function createSite(
  { listo, viewer, actor }: Changing,
  { name, timeZone, calendarId }: { name: string; timeZone: string; calendarId: string },
): Promise<{ id: string }> {
  if (!viewer.isAdministrator) throw new ProblemError('forbidden');
  const { tables } = listo.db;
  return change(listo, actor, async (tx) => {
    const calendar = await tables.calendars.findOne({ id: calendarId }, tx);
    if (!calendar) throw refuse('calendarId');
    try {
      compileCalendar({ ...calendar.spec, timeZone });
    } catch (error) {
      if (error instanceof UnknownTimeZone) throw refuse('timeZone', 'malformed');
      throw error;
    }
    const sites = await tables.sites.find({}, { transaction: tx });
    if (sites.some((site) => site.name.toLowerCase() === name.trim().toLowerCase()))
      throw refuse('name', 'taken');
    const id = nanoid(12);
    await tables.sites.insert({ id, name: name.trim(), timeZone, calendarId, headId: null }, tx);
    await appendSetting({ listo, tx }, { by: viewer.id, type: 'siteMade', data: { siteId: id, name } });
    return { id };
  });
}
