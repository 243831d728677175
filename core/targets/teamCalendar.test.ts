import { moveTeamCalendar } from './teamCalendar';

const of = (teamId: string, calendarId: string) => ({
  when: { field: 'teamId', op: 'is', value: teamId } as const,
  calendarId,
});
const rest = { calendarId: 'office' };

test('a team that is named moves', () => {
  expect(moveTeamCalendar([of('desk', 'desk'), of('network', 'ships'), rest], 'desk', 'ships')).toEqual([
    of('desk', 'ships'),
    of('network', 'ships'),
    rest,
  ]);
});

test('a team among all the rest gets a choice of its own, before theirs', () => {
  expect(moveTeamCalendar([of('desk', 'desk'), rest], 'stores', 'ships')).toEqual([
    of('desk', 'desk'),
    of('stores', 'ships'),
    rest,
  ]);
});

test('a promise on one calendar, or one that chooses by something else, follows no team', () => {
  const byPriority = [
    { when: { field: 'priority', op: 'is', value: 'P1' } as const, calendarId: 'ships' },
    rest,
  ];
  expect(moveTeamCalendar([rest], 'desk', 'ships')).toEqual([rest]);
  expect(moveTeamCalendar(byPriority, 'desk', 'ships')).toEqual(byPriority);
});
