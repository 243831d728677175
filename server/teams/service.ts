import { nanoid } from 'nanoid';
import type { api } from '../../contract';
import type { BodyOf } from '../../contract/endpoint';
import { WAITS } from '../../core/hours';
import { LANGUAGES } from '../../core/forms';
import { mayLead, maySetUp } from '../../core/rights';
import type { ProgressLabel } from '../../core/tickets';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import { appendSetting } from '../journal/append';
import type { TeamRow } from '../people/model';
import { forgetViewers } from '../sessions/viewer';
import type { Changing, UnitOfWork } from '../unitOfWork';

const refuse = (field: string) =>
  new ProblemError('fieldsNotValid', { fields: [{ field, code: 'notAChoice' }] });

export async function createTeam(
  { listo, viewer, actor }: Changing,
  { name, calendarId, isConfidential }: BodyOf<typeof api.teams.create>,
): Promise<{ id: string; targetIds: string[] }> {
  if (!viewer.isAdministrator) throw new ProblemError('forbidden');
  return change(listo, actor, async (tx) => {
    const { tables } = listo.db;
    if (!(await tables.calendars.findOne({ id: calendarId }, tx))) throw refuse('calendarId');
    const team = {
      id: nanoid(12),
      name,
      calendarId,
      isConfidential,
      outOfHours: WAITS,
      mailbox: null,
      mailServiceId: null,
      progressLabels: [],
      orderWeights: null,
      routing: null,
      version: 1,
    };
    await tables.teams.insert(team, tx);
    const targetIds = await listo.ports.teams.made({ listo, tx }, team);
    await appendSetting(
      { listo, tx },
      {
        by: viewer.id,
        type: 'teamMade',
        data: { teamId: team.id, name: name.en },
      },
    );
    return { id: team.id, targetIds };
  });
}

/** Each label once, named in both languages. */
function refuseLabels(labels: ProgressLabel[]): void {
  const isNamed = labels.every(({ name }) => LANGUAGES.every((language) => name[language].trim() !== ''));
  const isOnce = new Set(labels.map(({ id }) => id)).size === labels.length;
  if (!isNamed || !isOnce)
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'progressLabels', code: 'missing' }] });
}

/** Other teams that are there, each for a team whose work is not in confidence: that is read and moved by its own alone. */
async function requireOthers(
  { listo, tx }: UnitOfWork,
  team: TeamRow,
  lists: Record<'givenOnBy' | 'readBy', string[] | null | undefined>,
): Promise<void> {
  for (const [field, ids] of Object.entries(lists)) {
    if (ids === undefined || (ids?.length === 0 && field === 'givenOnBy')) continue;
    const known = ids ?? [];
    const found = await listo.db.tables.teams.find({ id: known }, { transaction: tx });
    if (team.isConfidential || known.includes(team.id) || found.length !== new Set(known).size)
      throw refuse(field);
  }
}

export async function updateTeam(
  { listo, viewer, actor }: Changing,
  id: string,
  {
    version,
    calendarId,
    outOfHours,
    progressLabels,
    decidesInChat,
    answersMail,
    givenOnBy,
    readBy,
  }: BodyOf<typeof api.teams.update>,
): Promise<{ version: number }> {
  // How far its work is, is the lead's to name; all else is set up.
  const others = [calendarId, outOfHours, decidesInChat, answersMail, givenOnBy, readBy];
  const isOfLead = others.every((value) => value === undefined) && mayLead(viewer, id);
  if (!isOfLead && !maySetUp(viewer, id)) throw new ProblemError('forbidden');
  const done = await change(listo, actor, async (tx) => {
    const { tables } = listo.db;
    const team = await tables.teams.findOne({ id }, tx, true);
    if (!team) throw new ProblemError('notFound');
    if (team.version !== version)
      throw new ProblemError('stale', {
        differences: [{ field: 'outOfHours', theirs: team.outOfHours, yours: outOfHours, by: null }],
      });
    await requireOthers({ listo, tx }, team, { givenOnBy, readBy });
    // What is written in confidence is read by people alone.
    if (answersMail && team.isConfidential) throw refuse('answersMail');
    if (calendarId && !(await tables.calendars.findOne({ id: calendarId }, tx))) throw refuse('calendarId');
    const goesTo = outOfHours?.goesTo;
    if (goesTo && (goesTo === id || !(await tables.teams.findOne({ id: goesTo }, tx))))
      throw refuse('outOfHours.goesTo');
    const changed: TeamRow = {
      ...team,
      ...(calendarId !== undefined && { calendarId }),
      ...(outOfHours !== undefined && { outOfHours }),
      ...(progressLabels !== undefined && { progressLabels }),
      ...(decidesInChat !== undefined && { decidesInChat }),
      ...(answersMail !== undefined && { answersMail }),
      ...(givenOnBy !== undefined && { givenOnBy: givenOnBy && [...new Set(givenOnBy)] }),
      ...(readBy !== undefined && { readBy: readBy && [...new Set(readBy)] }),
      version: version + 1,
    };
    refuseLabels(progressLabels ?? []);
    await tables.teams.update({ id }, changed, tx);
    await listo.ports.teams.changed({ listo, tx }, { team: changed, before: team, personId: viewer.id });
    await appendSetting(
      { listo, tx },
      {
        by: viewer.id,
        type: 'teamChanged',
        changes: {
          calendarId: { from: team.calendarId, to: changed.calendarId },
          outOfHours: { from: team.outOfHours, to: changed.outOfHours },
          progressLabels: { from: team.progressLabels, to: changed.progressLabels },
          decidesInChat: { from: team.decidesInChat, to: changed.decidesInChat },
          answersMail: { from: team.answersMail, to: changed.answersMail },
          givenOnBy: { from: team.givenOnBy, to: changed.givenOnBy },
          readBy: { from: team.readBy ?? null, to: changed.readBy ?? null },
        },
        data: { teamId: id },
      },
    );
    return { version: version + 1 };
  });
  // Whom its work is open to holds at once.
  if (givenOnBy !== undefined || readBy !== undefined) forgetViewers(listo);
  return done;
}

export async function updateSite(
  { listo, viewer, actor }: Changing,
  id: string,
  calendarId: string,
): Promise<{ ok: true }> {
  if (!viewer.isAdministrator) throw new ProblemError('forbidden');
  return change(listo, actor, async (tx) => {
    const { tables } = listo.db;
    if (!(await tables.calendars.findOne({ id: calendarId }, tx))) throw refuse('calendarId');
    if (
      (await tables.sites.update({ id }, { calendarId }, tx)) === 0 &&
      !(await tables.sites.findOne({ id }, tx))
    )
      throw new ProblemError('notFound');
    await appendSetting(
      { listo, tx },
      { by: viewer.id, type: 'siteChanged', data: { siteId: id, calendarId } },
    );
    return OK;
  });
}
