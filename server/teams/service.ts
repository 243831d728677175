import { nanoid } from 'nanoid';
import type { Transaction } from 'sequelize';
import type { api } from '../../contract';
import type { BodyOf } from '../../contract/endpoint';
import { WAITS } from '../../core/hours';
import { LANGUAGES } from '../../core/forms';
import { maySetUp } from '../../core/rights';
import type { ProgressLabel } from '../../core/tickets';
import { listWarnPercents, moveTeamCalendar, twoPromises, type TargetDefinition } from '../../core/targets';
import { keepEdition, takeOver } from '../clocks/editions';
import type { TargetRow } from '../clocks/model';
import { setClosing } from '../hours/closing';
import { change, type Actor } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import { append } from '../journal/append';
import type { Listo } from '../listo';
import type { TeamRow } from '../people/model';
import { lookAtAllPlans } from '../plans/goOn';
import type { Effect } from '../recounts/effect';
import { askForRecount } from '../recounts/recount';
import { findEffect } from '../recounts/runner';
import type { SignedIn } from '../sessions/viewer';

const refuse = (field: string) =>
  new ProblemError('fieldsNotValid', { fields: [{ field, code: 'notAChoice' }] });

/** Adds the two promises that a team begins with. */
export async function addTwoPromises(
  listo: Listo,
  tx: Transaction,
  { id, calendarId, name }: Pick<TeamRow, 'id' | 'calendarId' | 'name'>,
): Promise<string[]> {
  const { tables } = listo.db;
  const position = (await tables.targets.find({}, { transaction: tx })).length;
  const targets = twoPromises({ teamId: id, teamName: name.en, calendarId });
  await tables.targets.insertAll(
    targets.map(({ measures, definition, notices }, i) => ({
      id: definition.id,
      definition: { ...definition, warnAtPercent: listWarnPercents(notices) },
      ...{
        measures,
        notices,
        teamId: id,
        isOn: true,
        edition: 1,
        newFrom: null,
        position: position + i,
        version: 1,
      },
    })),
    tx,
  );
  return targets.map(({ definition }) => definition.id);
}

export async function createTeam(
  listo: Listo,
  viewer: SignedIn,
  actor: Actor,
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
    const targetIds = await addTwoPromises(listo, tx, team);
    await append(listo, tx, {
      ...{ actorId: viewer.id, via: 'desk', type: 'teamMade', ticketNumber: null, audience: 'team' },
      data: { teamId: team.id, name: name.en },
    });
    return { id: team.id, targetIds };
  });
}

/** A promise once a team has another calendar; what another team promises for itself stays as it is. */
function moveDefinition(
  { definition, teamId: owner }: Pick<TargetRow, 'definition' | 'teamId'>,
  teamId: string,
  to: string,
): TargetDefinition {
  if (owner !== null && owner !== teamId) return definition;
  return { ...definition, calendars: moveTeamCalendar(definition.calendars, teamId, to) };
}

/**
 * Each promise that moves is another edition of it: clocks that go by the latest one go on by this one. Where that one
 * holds for what was opened from some instant on, it is changed as it is, so that it still holds from there.
 */
async function moveTargets(
  listo: Listo,
  viewer: SignedIn,
  tx: Transaction,
  { teamId, to }: { teamId: string; to: string },
): Promise<void> {
  const { tables } = listo.db;
  for (const target of await tables.targets.find({}, { transaction: tx })) {
    const { id, version, edition: from } = target;
    const definition = moveDefinition(target, teamId, to);
    if (JSON.stringify(definition) === JSON.stringify(target.definition)) continue;
    if (target.newFrom !== null) {
      await tables.targets.update({ id }, { definition, version: version + 1 }, tx);
      await tables.targetEditions.update({ targetId: id, edition: from }, { definition }, tx);
      continue;
    }
    const at = listo.clock.now();
    const edition = await keepEdition(listo, tx, {
      ...{ target, id, definition, at, personId: viewer.id, isForOpen: true },
    });
    await tables.targets.update({ id }, { definition, edition, version: version + 1 }, tx);
    await takeOver(listo, tx, { id, edition, from });
  }
}

/** What another calendar of a team would move: every promise that goes by it there. */
export async function findTeamEffect(
  listo: Listo,
  viewer: SignedIn,
  teamId: string,
  calendarId: string,
): Promise<Effect> {
  if (!maySetUp(viewer, teamId)) throw new ProblemError('forbidden');
  const { tables } = listo.db;
  if (!(await tables.teams.findOne({ id: teamId }))) throw new ProblemError('notFound');
  if (!(await tables.calendars.findOne({ id: calendarId }))) throw refuse('calendarId');
  const targets = (await tables.targets.find({})).map((target) => ({
    id: target.id,
    definition: moveDefinition(target, teamId, calendarId),
  }));
  return findEffect(listo, viewer, { targets });
}

/** Each label once, named in both languages. */
function refuseLabels(labels: ProgressLabel[]): void {
  const isNamed = labels.every(({ name }) => LANGUAGES.every((language) => name[language].trim() !== ''));
  const isOnce = new Set(labels.map(({ id }) => id)).size === labels.length;
  if (!isNamed || !isOnce)
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'progressLabels', code: 'missing' }] });
}

export async function updateTeam(
  listo: Listo,
  viewer: SignedIn,
  actor: Actor,
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
  if (!maySetUp(viewer, id)) throw new ProblemError('forbidden');
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
    if (changed.calendarId !== team.calendarId) {
      await moveTargets(listo, viewer, tx, { teamId: id, to: changed.calendarId });
      await askForRecount(listo, tx, team.name.en);
      await lookAtAllPlans(listo, tx);
    }
    await setClosing(listo, changed, tx);
    await append(listo, tx, {
      ...{ actorId: viewer.id, via: 'desk', type: 'teamChanged', ticketNumber: null, audience: 'team' },
      changes: {
        calendarId: { from: team.calendarId, to: changed.calendarId },
        outOfHours: { from: team.outOfHours, to: changed.outOfHours },
        progressLabels: { from: team.progressLabels, to: changed.progressLabels },
        decidesInChat: { from: team.decidesInChat, to: changed.decidesInChat },
        answersMail: { from: team.answersMail, to: changed.answersMail },
        givenOnBy: { from: team.givenOnBy, to: changed.givenOnBy },
      },
      data: { teamId: id },
    });
    return { version: version + 1 };
  });
}

export async function updateSite(
  listo: Listo,
  viewer: SignedIn,
  actor: Actor,
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
    await append(listo, tx, {
      ...{ actorId: viewer.id, via: 'desk', type: 'siteChanged', ticketNumber: null, audience: 'team' },
      data: { siteId: id, calendarId },
    });
    return OK;
  });
}
