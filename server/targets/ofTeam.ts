import { listWarnPercents, moveTeamCalendar, twoPromises, type TargetDefinition } from '../../core/targets';
import { keepEdition, takeOver } from '../clocks/editions';
import type { TargetRow } from '../clocks/model';
import type { TeamRow } from '../people/model';
import type { UnitOfWork } from '../unitOfWork';

/** Adds the two promises that a team begins with. */
export async function addTwoPromises(
  { listo, tx }: UnitOfWork,
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

/** A promise once a team has another calendar; what another team promises for itself stays as it is. */
export function moveDefinition(
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
export async function moveTargets(
  { listo, tx }: UnitOfWork,
  { teamId, to, personId }: { teamId: string; to: string; personId: string },
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
    const edition = await keepEdition(
      { listo, tx },
      {
        ...{ target, id, definition, at, personId, isForOpen: true },
      },
    );
    await tables.targets.update({ id }, { definition, edition, version: version + 1 }, tx);
    await takeOver({ listo, tx }, { id, edition, from });
  }
}
