import { Anchor, Button, Group, Select, Table, Text, TextInput } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { AnswerOf } from '../../../contract/endpoint';
import { api } from '../../api/endpoints';
import { useMe, useSites, useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import '../../messages/peopleWords';
import { Lost } from '../../ui/Lost';
import { PersonName } from '../../ui/PersonName';
import { ProblemNote } from '../../ui/ProblemNote';
import { Waiting } from '../../ui/Waiting';
import { WorkshopFrame } from '../WorkshopFrame';
import { NewPerson } from './NewPerson';
import { useKeptPeople, type Narrowing } from './usePeople';

type Listed = AnswerOf<typeof api.organisation.people>['rows'][number];

const NAMES = ['q', 'siteId', 'teamId', 'state', 'role'] as const;
const ROLES = ['agent', 'administrator', 'employee'] as const;
const STATES = ['here', 'away', 'left'] as const;

/** What narrows the list stands in the address, so that it can be sent on and come back to. */
function useNarrowing(): [Narrowing, (name: keyof Narrowing, value: string | null) => void] {
  const [params, setParams] = useSearchParams();
  const narrowing = Object.fromEntries(NAMES.map((name) => [name, params.get(name) ?? ''])) as Narrowing;
  const set = (name: keyof Narrowing, value: string | null): void =>
    setParams(
      (before) => {
        const next = new URLSearchParams(before);
        if (value) next.set(name, value);
        else next.delete(name);
        return next;
      },
      { replace: true },
    );
  return [{ ...narrowing, state: narrowing.state || 'here' }, set];
}

function Narrow({
  narrowing,
  set,
}: {
  narrowing: Narrowing;
  set(name: keyof Narrowing, value: string | null): void;
}) {
  const { t, local } = useWords();
  const { data: sites = [] } = useSites();
  const { data: teams = [] } = useTeams();
  const [typed, setTyped] = useState(narrowing.q);
  const choose = (
    name: 'siteId' | 'teamId' | 'role',
    label: string,
    data: { value: string; label: string }[],
  ) => (
    <Select
      {...{ label, data, w: 190, searchable: true, clearable: true }}
      placeholder={t('people/any')}
      value={narrowing[name] || null}
      onChange={(value) => set(name, value)}
    />
  );
  return (
    <Group align="end" gap="sm" mb="md">
      <TextInput
        label={t('people/find')}
        style={{ flex: '1 1 300px' }}
        value={typed}
        onChange={({ target }) => {
          setTyped(target.value);
          set('q', target.value);
        }}
      />
      {choose(
        'siteId',
        t('people/site'),
        sites.map(({ id, name }) => ({ value: id, label: name })),
      )}
      {choose(
        'teamId',
        t('people/team'),
        teams.map(({ id, name }) => ({ value: id, label: local(name) })),
      )}
      {choose(
        'role',
        t('people/who'),
        ROLES.map((role) => ({ value: role, label: t(`people/roles/${role}`) })),
      )}
      <Select
        w={140}
        allowDeselect={false}
        label={t('people/state')}
        data={STATES.map((state) => ({ value: state, label: t(`people/states/${state}`) }))}
        value={narrowing.state}
        onChange={(value) => set('state', value)}
      />
    </Group>
  );
}

function Row({ person }: { person: Listed }) {
  const { t, local } = useWords();
  const { id, title, department, site, teams, wayIn, isAway, isAdministrator, email } = person;
  const marks = [isAdministrator && t('people/administers'), isAway && t('people/away')].filter(Boolean);
  return (
    <Table.Tr>
      <Table.Td>
        <Anchor component={Link} size="sm" to={`/workshop/people/${id}`}>
          <PersonName person={person} />
        </Anchor>
        {marks.length > 0 && (
          <Text span size="xs" c="var(--muted)">
            {' · '}
            {marks.join(' · ')}
          </Text>
        )}
        <Text size="xs" c="var(--muted)">
          {email}
        </Text>
      </Table.Td>
      <Table.Td>
        {title}
        <Text size="xs" c="var(--muted)">
          {department}
        </Text>
      </Table.Td>
      <Table.Td>{site}</Table.Td>
      <Table.Td>{teams.map(local).join(', ')}</Table.Td>
      <Table.Td c={wayIn === 'none' ? 'var(--muted)' : 'var(--ink)'}>{t(`people/ways/${wayIn}`)}</Table.Td>
    </Table.Tr>
  );
}

/** The people of the organisation, for those who keep them. */
export function PeoplePage() {
  const { t } = useWords();
  const me = useMe();
  const [narrowing, set] = useNarrowing();
  const [q] = useDebouncedValue(narrowing.q, 150);
  const { data, error, hasNextPage, fetchNextPage, isFetchingNextPage } = useKeptPeople({ ...narrowing, q });
  const [isAdding, setAdding] = useState(false);
  if (!me.isAdministrator) return <Lost />;
  const rows = data?.pages.flatMap((page) => page.rows) ?? [];
  return (
    <WorkshopFrame lead={t('people/lead')}>
      <Group mb="md" gap="xs">
        <Button onClick={() => setAdding(true)}>{t('people/add')}</Button>
        <Button variant="default" component={Link} to="/workshop/people/table">
          {t('people/fromTable')}
        </Button>
      </Group>
      {isAdding && <NewPerson onClose={() => setAdding(false)} />}
      <Narrow {...{ narrowing, set }} />
      <ProblemNote error={error} />
      {!data && !error && <Waiting />}
      {data && rows.length === 0 && <p>{t('people/none')}</p>}
      {rows.length > 0 && (
        <Table.ScrollContainer minWidth={640}>
          <Table aria-label={t('workshop/people')} verticalSpacing={6} fz="sm">
            <Table.Thead>
              <Table.Tr>
                {(['name', 'title', 'site', 'teams', 'way'] as const).map((column) => (
                  <Table.Th key={column}>{t(`people/columns/${column}`)}</Table.Th>
                ))}
              </Table.Tr>
            </Table.Thead>
            <Table.Tbody>
              {rows.map((person) => (
                <Row key={person.id} person={person} />
              ))}
            </Table.Tbody>
          </Table>
        </Table.ScrollContainer>
      )}
      {hasNextPage && (
        <Button mt="sm" variant="default" loading={isFetchingNextPage} onClick={() => void fetchNextPage()}>
          {t('people/more')}
        </Button>
      )}
    </WorkshopFrame>
  );
}
