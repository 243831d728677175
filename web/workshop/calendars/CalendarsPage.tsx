import { Button } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { NavLink, useNavigate, useParams } from 'react-router';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useMe } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { Waiting } from '../../ui/Waiting';
import { useCalendarList } from '../queries';
import classes from '../Workshop.module.css';
import { WorkshopFrame } from '../WorkshopFrame';
import { CalendarEditor } from './CalendarEditor';

/** All working calendars, and the one that is looked at. */
export function CalendarsPage() {
  const { t } = useWords();
  const me = useMe();
  const { id } = useParams();
  const navigate = useNavigate();
  const client = useQueryClient();
  const { data, error, refetch } = useCalendarList();
  const calendar = data?.find((each) => each.id === id) ?? data?.[0];
  const make = useMutation({
    mutationFn: () => {
      const hours = [{ from: '09:00', to: '17:00' }];
      const weekly = { mon: hours, tue: hours, wed: hours, thu: hours, fri: hours };
      const spec = {
        name: t('workshop/calendar/newName'),
        timeZone: me.timeZone,
        hoursPerDay: 8,
        weekly,
        exceptions: [],
      };
      return call(api.calendars.create, { body: { spec }, key: nanoid() });
    },
    onSuccess: async (made) => {
      await client.invalidateQueries({ queryKey: ['calendars'] });
      await navigate(`/workshop/calendars/${made.id}`);
    },
  });
  const mayMake = me.isAdministrator || me.teams.some(({ role }) => role === 'teamAdministrator');
  return (
    <WorkshopFrame>
      {!data && !error && <Waiting />}
      {error && <ProblemNote error={error} onRetry={() => void refetch()} />}
      {data && (
        <div className={classes.split}>
          <nav aria-label={t('workshop/calendars')}>
            <ul className={classes.list}>
              {data.map((each) => (
                <li key={each.id}>
                  <NavLink
                    to={`/workshop/calendars/${each.id}`}
                    aria-current={each.id === calendar?.id ? 'page' : undefined}
                  >
                    {each.spec.name}
                    <small>{each.spec.timeZone}</small>
                  </NavLink>
                </li>
              ))}
            </ul>
            {mayMake && (
              <Button size="xs" variant="default" loading={make.isPending} onClick={() => make.mutate()}>
                {t('workshop/calendar/new')}
              </Button>
            )}
          </nav>
          {calendar && <CalendarEditor key={calendar.id} calendar={calendar} />}
        </div>
      )}
    </WorkshopFrame>
  );
}
