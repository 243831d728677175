import { Button, Group, Text, TextInput, Title } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, NavLink, useParams } from 'react-router';
import type { AnswerOf } from '../../../contract/endpoint';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useMe, usePeopleSearch } from '../../api/queries';
import { addWorkshopWords } from '../../messages/workshopWords';
import { useWords } from '../../messages/useWords';
import { Lost } from '../../ui/Lost';
import { PersonName } from '../../ui/PersonName';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import { Waiting } from '../../ui/Waiting';
import classes from '../Workshop.module.css';
import { WorkshopFrame } from '../WorkshopFrame';

addWorkshopWords();

type Leaving = AnswerOf<typeof api.people.leaving>;
type Listed = { id: string; name: string; goesFirst: boolean; title: string; site: string };

/** Passing on is done beside; it takes a moment. */
const LOOK_MS = 700;
const isPassingOn = ({ leftAt, waiting: { asks, tickets, steps } }: Leaving): boolean =>
  leftAt !== null && asks + tickets + steps > 0;

function People({ people, sayOf }: { people: Listed[]; sayOf(person: Listed): string }) {
  return (
    <ul className={classes.list}>
      {people.map((person) => (
        <li key={person.id}>
          <NavLink to={`/workshop/leaving/${person.id}`}>
            <PersonName person={person} />
            <Text size="xs" c="var(--muted)">
              {sayOf(person)}
            </Text>
          </NavLink>
        </li>
      ))}
    </ul>
  );
}

/** What becomes of what waits for them, one sentence a kind. */
function Consequences({ waiting, services, leftAt }: Leaving) {
  const { t, local } = useWords();
  const kinds = (['asks', 'tickets', 'steps', 'reports'] as const).filter((kind) => waiting[kind] > 0);
  return (
    <>
      {leftAt === null && kinds.length === 0 && <p>{t('workshop/leaver/nothing')}</p>}
      {kinds.length > 0 && (
        <ul>
          {kinds.map((kind) => (
            <li key={kind}>{t(`workshop/leaver/waiting/${kind}`, { count: waiting[kind] })}</li>
          ))}
        </ul>
      )}
      {services.length > 0 && (
        <>
          <p>{t('workshop/leaver/named')}</p>
          <ul>
            {services.map(({ id, title }) => (
              <li key={id} style={{ lineHeight: '26px' }}>
                <Link to={`/workshop/services/${id}`} style={{ display: 'inline-block' }}>
                  {local(title)}
                </Link>
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}

function Card({ id }: { id: string }) {
  const { t } = useWords();
  const me = useMe();
  const times = useTimes();
  const client = useQueryClient();
  const { data: person, error } = useQuery({
    queryKey: ['leaving', id],
    queryFn: () => call(api.people.leaving, { params: { id } }),
    refetchInterval: ({ state }) => (state.data && isPassingOn(state.data) ? LOOK_MS : false),
  });
  const [isAsked, setAsked] = useState(false);
  const say = useMutation({
    mutationFn: ({ version, leftAt }: Leaving) =>
      call(leftAt === null ? api.people.leave : api.people.comeBack, { params: { id }, body: { version } }),
    onSuccess: (_, { name, leftAt }) => {
      setAsked(false);
      notifications.show({ message: t(`workshop/leaver/${leftAt === null ? 'gone' : 'isBack'}`, { name }) });
    },
    onSettled: () =>
      Promise.all(
        [['leaving'], ['leavers'], ['people'], ['teams']].map((queryKey) =>
          client.invalidateQueries({ queryKey }),
        ),
      ),
  });
  if (!person) return error ? <ProblemNote error={error} /> : <Waiting />;
  const { name, title, site, leftAt } = person;
  return (
    <section aria-label={name}>
      <Title order={2} size="h4">
        <PersonName person={person} />
      </Title>
      <Text size="sm" c="var(--muted)" mb="sm">
        {title}, {site}
        {leftAt !== null && ` · ${t('workshop/leaver/since', { day: times.day(leftAt) })}`}
      </Text>
      <Consequences {...person} />
      <ProblemNote error={say.error} />
      {id === me.id && <p>{t('workshop/leaver/yourself')}</p>}
      {leftAt !== null && (
        <Button variant="default" loading={say.isPending} onClick={() => say.mutate(person)}>
          {t('workshop/leaver/back')}
        </Button>
      )}
      {leftAt === null && id !== me.id && !isAsked && (
        <Button variant="default" onClick={() => setAsked(true)}>
          {t('workshop/leaver/leaves', { name })}
        </Button>
      )}
      {leftAt === null && isAsked && (
        <>
          <p>{t('workshop/leaver/sure', { name })}</p>
          <Group gap="sm" mt="sm">
            <Button color="var(--brick)" loading={say.isPending} onClick={() => say.mutate(person)}>
              {t('workshop/leaver/sureYes')}
            </Button>
            <Button variant="default" onClick={() => setAsked(false)}>
              {t('common/cancel')}
            </Button>
          </Group>
        </>
      )}
    </section>
  );
}

/** Who has left: what waited for them goes to others, and nothing is asked of them any more. */
export function LeavingPage() {
  const { t } = useWords();
  const me = useMe();
  const times = useTimes();
  const { id } = useParams();
  const [typed, setTyped] = useState('');
  const [q] = useDebouncedValue(typed, 120);
  const { data: found } = usePeopleSearch(q);
  const { data: leavers, error } = useQuery({
    queryKey: ['leavers'],
    enabled: me.isAdministrator,
    queryFn: () => call(api.people.leavers),
  });
  if (!me.isAdministrator) return <Lost />;
  const leftAtOf = new Map(leavers?.map((person) => [person.id, person.leftAt]));
  return (
    <WorkshopFrame lead={t('workshop/leaver/lead')}>
      <div className={classes.split}>
        <div>
          <TextInput
            label={t('workshop/leaver/who')}
            value={typed}
            onChange={({ target }) => setTyped(target.value)}
            mb="sm"
          />
          {q.trim().length > 1 && found && found.length === 0 && <p>{t('workshop/leaver/nobody')}</p>}
          {q.trim().length > 1 && found && (
            <People people={found} sayOf={({ title, site }) => `${title}, ${site}`} />
          )}
          <h2 className={classes.small}>{t('workshop/leaver/left')}</h2>
          <ProblemNote error={error} />
          {leavers?.length === 0 && (
            <Text size="sm" c="var(--muted)">
              {t('workshop/leaver/nobodyLeft')}
            </Text>
          )}
          {leavers && (
            <People
              people={leavers}
              sayOf={(person) => t('workshop/leaver/since', { day: times.day(leftAtOf.get(person.id)!) })}
            />
          )}
        </div>
        {id === undefined ? (
          <p className={classes.lead}>{t('workshop/leaver/choose')}</p>
        ) : (
          <Card key={id} id={id} />
        )}
      </div>
    </WorkshopFrame>
  );
}
