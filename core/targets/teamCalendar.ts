import type { TargetDefinition } from './types';

type Choice = TargetDefinition['calendars'][number];

const teamOf = ({ when }: Choice): unknown =>
  when && 'field' in when && when.field === 'teamId' && when.op === 'is' ? when.value : null;

/**
 * A promise's calendars once a team has another one. Where it names the team, that choice moves. Where it follows teams
 * and has had this one among all the rest, the team gets a choice of its own. A promise on one calendar stays there.
 */
export function moveTeamCalendar(calendars: Choice[], teamId: string, to: string): Choice[] {
  if (calendars.some((choice) => teamOf(choice) === teamId))
    return calendars.map((choice) => (teamOf(choice) === teamId ? { ...choice, calendarId: to } : choice));
  if (!calendars.some((choice) => teamOf(choice) !== null)) return calendars;
  const rest = calendars.findIndex(({ when }) => when === undefined);
  const own: Choice = { when: { field: 'teamId', op: 'is', value: teamId }, calendarId: to };
  return calendars.toSpliced(rest === -1 ? calendars.length : rest, 0, own);
}
