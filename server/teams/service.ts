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
import type { Changing } from '../unitOfWork';

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
  }: BodyOf<typeof api.teams.update>,
): Promise<{ version: number }> {
  // How far its work is, is the lead's to name; all else is set up.
  const others = [calendarId, outOfHours, decidesInChat, answersMail, givenOnBy];
  const isOfLead = others.every((value) => value === undefined) && mayLead(viewer, id);
  if (!isOfLead && !maySetUp(viewer, id)) throw new ProblemError('forbidden');
  return change(listo, actor, async (tx) => {
    const { tables } = listo.db;
    const team = await tables.teams.findOne({ id }, tx, true);
    if (!team) throw new ProblemError('notFound');
    if (team.version !== version)
      throw new ProblemError('stale', {
        differences: [{ field: 'outOfHours', theirs: team.outOfHours, yours: outOfHours, by: null }],
      });
    // What is written in confidence is read by people alone.
    if (givenOnBy?.length) {
      const known = await tables.teams.find({ id: givenOnBy }, { transaction: tx });
      // What is in confidence is moved by its own team alone.
      if (team.isConfidential || givenOnBy.includes(id) || known.length !== new Set(givenOnBy).size)
        throw refuse('givenOnBy');
    }
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
      ...(givenOnBy !== undefined && { givenOnBy: [...new Set(givenOnBy)] }),
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
        },
        data: { teamId: id },
      },
    );
    return { version: version + 1 };
  });
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
