import { Anchor, Button, Group, Select, Table, Text, TextInput } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { ThingCard } from '../../contract/estate';
import { THING_STATES } from '../../core/estate';
import { useNow } from '../api/clock';
import { useMe, useSites } from '../api/queries';
import { useWords } from '../messages/useWords';
import { PersonName } from '../ui/PersonName';
import { ProblemNote } from '../ui/ProblemNote';
import { Waiting } from '../ui/Waiting';
import classes from './Estate.module.css';
import { EstateFrame } from './EstateFrame';
import { Scan } from './Scan';
import { ThingEditor } from './ThingEditor';
import { LentUntil, WarrantyUntil } from './untils';
import { useKinds, useNarrowing, useThings, type Narrowing } from './useThings';

const ONLY = ['claimed', 'overdue', 'unseen', 'watched', 'warranty'] as const;
const WORTH = ['claimed', 'overdue', 'unseen', 'warranty'] as const;
type Set = (name: keyof Narrowing, value: string | null) => void;

function Narrow({ narrowing, set }: { narrowing: Narrowing; set: Set }) {
  const { t, local } = useWords();
  const { data: sites = [] } = useSites();
  const { data: kinds = [] } = useKinds();
  const [typed, setTyped] = useState(narrowing.q);
  const choose = (name: keyof Narrowing, label: string, data: [string, string][], w = 170) => (
    <Select
      {...{ label, w, searchable: true, clearable: true }}
      data={data.map(([value, words]) => ({ value, label: words }))}
      placeholder={t('estate/any')}
      value={narrowing[name] || null}
      onChange={(value) => set(name, value)}
    />
  );
  return (
    <Group align="end" gap="sm" mb="md">
      <TextInput
        label={t('estate/find')}
        style={{ flex: '1 1 300px' }}
        value={typed}
        onChange={({ target }) => {
          setTyped(target.value);
          set('q', target.value);
        }}
      />
      {choose(
        'kindId',
        t('estate/kind'),
        kinds.map(({ id, name }) => [id, local(name)]),
      )}
      {choose(
        'state',
        t('estate/state'),
        THING_STATES.map((state) => [state, t(`estate/states/${state}`)]),
        140,
      )}
      {choose(
        'siteId',
        t('estate/site'),
        sites.map(({ id, name }) => [id, name]),
      )}
      {choose(
        'only',
        t('estate/only'),
        ONLY.map((only) => [only, t(`estate/onlys/${only}`)]),
        240,
      )}
    </Group>
  );
}

function Row({ thing, now }: { thing: ThingCard; now: number }) {
  const { t, local } = useWords();
  const { id, name, tag, kind, state, holder, site, place, vessel, model, serial, claim, openTickets } =
    thing;
  const where = [vessel && `MV ${vessel}`, site?.name, place].filter(Boolean).join(', ');
  return (
    <Table.Tr>
      <Table.Td>
        <Anchor component={Link} size="sm" to={`/estate/${id}`}>
          <bdi>{name}</bdi>
        </Anchor>
        <Text size="xs" c="var(--muted)">
          {[local(kind), tag].filter(Boolean).join(' · ')}
        </Text>
      </Table.Td>
      <Table.Td>
        {holder ? <PersonName person={holder} /> : where}
        {holder && (
          <Text size="xs" c="var(--muted)">
            {where}
          </Text>
        )}
      </Table.Td>
      <Table.Td>
        {state !== 'inUse' && t(`estate/states/${state}`)}
        {claim && <Text size="xs">{t(`estate/said/claims/${claim}`)}</Text>}
        <LentUntil at={thing.lentUntil} now={now} />
      </Table.Td>
      <Table.Td>
        {model}
        <Text size="xs" c="var(--muted)">
          {serial}
        </Text>
      </Table.Td>
      <Table.Td>
        <WarrantyUntil day={thing.warrantyUntil} now={now} />
      </Table.Td>
      <Table.Td ta="end">{openTickets > 0 && openTickets}</Table.Td>
    </Table.Tr>
  );
}

/** What is worth a look, each with the way to it. */
function Attention(attention: Record<(typeof WORTH)[number], number>) {
  const { t } = useWords();
  const some = WORTH.filter((only) => attention[only] > 0);
  if (some.length === 0) return null;
  return (
    <>
      {' · '}
      {t('estate/worthALook')}{' '}
      {some.map((only, i) => (
        <span key={only}>
          {i > 0 && ' · '}
          <Link to={`/estate?only=${only}`}>{t(`estate/attention/${only}`, { count: attention[only] })}</Link>
        </span>
      ))}
    </>
  );
}

function Found({ narrowing }: { narrowing: Narrowing }) {
  const { t } = useWords();
  const now = useNow(60_000);
  const { data, error, refetch, hasNextPage, fetchNextPage, isFetchingNextPage } = useThings(narrowing);
  if (error && !data) return <ProblemNote error={error} onRetry={() => void refetch()} />;
  if (!data) return <Waiting />;
  const rows = data.pages.flatMap((page) => page.rows);
  const { count, attention } = data.pages[0]!;
  const isNarrowed = Object.values(narrowing).some((value) => value !== '');
  if (rows.length === 0) return <p>{t(isNarrowed ? 'estate/none' : 'estate/empty')}</p>;
  return (
    <>
      <p className={classes.quiet}>
        {t('estate/count', { count })}
        <Attention {...attention} />
      </p>
      <Table.ScrollContainer minWidth={760}>
        <Table aria-label={t('estate/title')} verticalSpacing={6} fz="sm">
          <Table.Thead>
            <Table.Tr>
              <Table.Th>{t('estate/thing')}</Table.Th>
              <Table.Th>{t('estate/who')}</Table.Th>
              <Table.Th>{t('estate/state')}</Table.Th>
              <Table.Th>{t('estate/model')}</Table.Th>
              <Table.Th>{t('estate/fields/warrantyUntil')}</Table.Th>
              <Table.Th ta="end">{t('estate/mark')}</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {rows.map((thing) => (
              <Row key={thing.id} thing={thing} now={now} />
            ))}
          </Table.Tbody>
        </Table>
      </Table.ScrollContainer>
      {hasNextPage && (
        <Button mt="sm" variant="default" loading={isFetchingNextPage} onClick={() => void fetchNextPage()}>
          {t('estate/more')}
        </Button>
      )}
    </>
  );
}

/** All things that one sees, found by a few letters, a code or a condition. */
export function ThingsPage() {
  const { t } = useWords();
  const me = useMe();
  const navigate = useNavigate();
  const [narrowing, set] = useNarrowing();
  const [q] = useDebouncedValue(narrowing.q, 150);
  const { data: kinds = [] } = useKinds();
  const [isNew, setNew] = useState(false);
  const mayMake = kinds.some(({ mayKeep }) => mayKeep);
  return (
    <EstateFrame
      isFirst
      title={t('estate/title')}
      lead={t('estate/lead')}
      actions={
        <Group gap="xs">
          <Scan onFound={({ id }) => void navigate(`/estate/${id}`)} />
          <Button size="xs" variant="default" component={Link} to="/estate/stock">
            {t('estate/takeStock')}
          </Button>
          <Button size="xs" variant="default" component={Link} to="/estate/figures">
            {t('estate/figures')}
          </Button>
          {me.isAdministrator && (
            <Button size="xs" variant="default" component={Link} to="/workshop/things">
              {t('estate/kinds')}
            </Button>
          )}
          {mayMake && (
            <Button size="xs" variant="default" component={Link} to="/estate/table">
              {t('estate/table')}
            </Button>
          )}
          {mayMake && (
            <Button size="xs" onClick={() => setNew(true)}>
              {t('estate/new')}
            </Button>
          )}
        </Group>
      }
    >
      {isNew && <ThingEditor thing={null} onClose={() => setNew(false)} />}
      <Narrow {...{ narrowing, set }} />
      <Found narrowing={{ ...narrowing, q }} />
    </EstateFrame>
  );
}
