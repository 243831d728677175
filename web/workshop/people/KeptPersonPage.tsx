import { Anchor, Button, Text, Title } from '@mantine/core';
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
import { useKeptPerson } from './usePeople';
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
  const { t } = useWords();
  const me = useMe();
  const times = useTimes();
  const { data: person, error } = useKeptPerson(id);
  if (!person) return error ? <ProblemNote error={error} /> : <Waiting />;
  const { leftAt } = person;
  return (
    <>
      <Title order={2} size="h3" mt="xs">
        <PersonName person={person} />
      </Title>
      {leftAt !== null && <Text c="var(--muted)">{t('people/left', { day: times.day(leftAt) })}</Text>}
      <div className={own.sides}>
        <section className={classes.section} aria-label={person.name}>
          <FactsForm key={person.version} person={person} />
        </section>
        <div>
          <Memberships person={person} />
          <WayIn person={person} />
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
