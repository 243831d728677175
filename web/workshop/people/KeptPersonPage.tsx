import { Anchor, Button, Text, Title } from '@mantine/core';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import type { KeptPerson } from '../../../contract/organisation';
import { useMe } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import '../../messages/peopleWords';
import { Lost } from '../../ui/Lost';
import { PersonName } from '../../ui/PersonName';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import { Waiting } from '../../ui/Waiting';
import classes from '../Workshop.module.css';
import { WorkshopFrame } from '../WorkshopFrame';
import { FactsForm } from './FactsForm';
import { Memberships } from './Memberships';
import own from './People.module.css';
import { Privacy } from './Privacy';
import { keyOfPerson, useKeptPerson, useRenewPeople } from './usePeople';
import { WayIn } from './WayIn';

function History({ history }: Pick<KeptPerson, 'history'>) {
  const { t, local } = useWords();
  const times = useTimes();
  return (
    <section className={classes.section} aria-labelledby="person-history">
      <h2 id="person-history">{t('people/history')}</h2>
      {history.length === 0 && <Text size="sm">{t('people/nothingYet')}</Text>}
      <ul className={own.history}>
        {history.map(({ at, byName, type, fields, team }, i) => (
          <li key={i}>
            {t(`people/said/${type}`, {
              fields: fields.map((field) => t(`people/fields/${field}`)).join(', '),
              team: team ? local(team) : '',
            })}
            <Text span size="xs" c="var(--muted)">
              {' · '}
              {[byName, times.full(at)].filter(Boolean).join(' · ')}
            </Text>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Person({ id }: { id: string }) {
  const { data: person, error } = useKeptPerson(id);
  if (!person) return error ? <ProblemNote error={error} /> : <Waiting />;
  return <Shown person={person} />;
}

/** What is typed rests on the facts as they were when it was begun, whatever is read anew beside it. */
function Shown({ person }: { person: KeptPerson }) {
  const { id } = person;
  const { t } = useWords();
  const me = useMe();
  const times = useTimes();
  const client = useQueryClient();
  const renew = useRenewPeople();
  const [base, setBase] = useState(person);
  const takeAnew = async (): Promise<void> => {
    await renew();
    setBase(client.getQueryData<KeptPerson>(keyOfPerson(id)) ?? person);
  };
  const { leftAt } = person;
  return (
    <>
      <Title order={2} size="h3" mt="xs">
        <PersonName person={person} />
      </Title>
      {leftAt !== null && <Text c="var(--muted)">{t('people/left', { day: times.day(leftAt) })}</Text>}
      <div className={own.sides}>
        <section className={classes.section} aria-label={person.name}>
          <FactsForm key={base.version} person={base} onRenew={() => void takeAnew()} />
        </section>
        <div>
          <Memberships person={person} />
          <WayIn person={person} />
          <Privacy person={person} />
          <History history={person.history} />
          {id !== me.id && (
            <Button component={Link} to={`/workshop/leaving/${id}`} mt="lg" variant="default">
              {t(leftAt === null ? 'people/leaves' : 'people/isBack')}
            </Button>
          )}
        </div>
      </div>
    </>
  );
}

/** All that is kept of one person, for those who keep people. */
export function KeptPersonPage() {
  const { t } = useWords();
  const me = useMe();
  const { id } = useParams();
  if (!me.isAdministrator) return <Lost />;
  return (
    <WorkshopFrame>
      <Anchor component={Link} to="/workshop/people" size="sm">
        ← {t('people/back')}
      </Anchor>
      <Person key={id} id={id!} />
    </WorkshopFrame>
  );
}
