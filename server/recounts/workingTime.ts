import { compileCalendar } from '../../core/calendar';
import type { CalendarPorts } from '../calendars/ports';
import { askForRecount } from '../clocks/askForRecount';
import { setClosing } from '../hours/closing';
import { lookAtAllPlans } from '../plans/goOn';
import { moveTargets } from '../targets/ofTeam';
import type { TeamChange } from '../teams/ports';
import type { UnitOfWork } from '../unitOfWork';

/** Another calendar: the hours of the teams on it, the clocks and the plans that run on it are reckoned anew. */
export const onCalendarChanged: CalendarPorts['changed'] = async ({ listo, tx }, { id, spec }) => {
  const { tables } = listo.db;
  const compiled = compileCalendar(spec);
  for (const team of await tables.teams.find({ calendarId: id }, { transaction: tx }))
    await setClosing({ listo, tx }, team, compiled);
  const targets = await tables.targets.find({}, { transaction: tx });
  const runOnIt = targets.filter(({ definition }) =>
    definition.calendars.some(({ calendarId }) => calendarId === id),
  );
  const ids = runOnIt.map((target) => target.id);
  if (ids.length > 0) await askForRecount({ listo, tx }, spec.name, ids);
  await lookAtAllPlans(listo, tx);
};

/** A team with another calendar or other hours: its targets move with it, clocks and plans are reckoned anew. */
export async function onTeamChanged(
  { listo, tx }: UnitOfWork,
  { team, before, personId }: TeamChange,
): Promise<void> {
  if (team.calendarId !== before.calendarId) {
    await moveTargets({ listo, tx }, { teamId: team.id, to: team.calendarId, personId });
    await askForRecount({ listo, tx }, before.name.en);
    await lookAtAllPlans(listo, tx);
  }
  await setClosing({ listo, tx }, team);
}
