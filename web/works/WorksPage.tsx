import { Anchor, Button, Code, Group, SegmentedControl, Table, Text } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { WorkCard } from '../../contract/works';
import { call } from '../api/call';
import { now as serverNow, useNow } from '../api/clock';
import { api } from '../api/endpoints';
import { useMe } from '../api/queries';
import { EstateFrame } from '../estate/EstateFrame';
import '../messages/worksWords';
import { useWords } from '../messages/useWords';
import { PersonName } from '../ui/PersonName';
import { ProblemNote } from '../ui/ProblemNote';
import { useTimes } from '../ui/useTimes';
import { Waiting } from '../ui/Waiting';
import { toZonedText, zonedInstant } from '../ui/zonedInstant';
import { Calendar } from './Calendar';
import { Freezes } from './Freezes';
import { useCalendar, useWorks } from './useWorks';
import classes from './Works.module.css';

const DAY = 86_400_000;
const SPANS = { week: 7 * DAY, month: 28 * DAY, quarter: 84 * DAY };
type Span = keyof typeof SPANS;

/** Where the day of an instant begins for someone. */
const dayOf = (at: number, timeZone: string): number =>
  zonedInstant(`${toZonedText(at, timeZone).slice(0, 10)}T00:00`, timeZone)!;

/** An address to subscribe to, shown once. */
function Feed() {
  const { t } = useWords();
  const make = useMutation({ mutationFn: () => call(api.works.makeFeed, { body: {}, key: nanoid() }) });
  return (
    <div>
      <Button size="compact-sm" variant="default" loading={make.isPending} onClick={() => make.mutate()}>
        {t('works/feed')}
      </Button>
      {make.data && (
        <p>
          {t('works/feedIs')} <Code>{make.data.address}</Code>
        </p>
      )}
      <ProblemNote error={make.error} />
    </div>
  );
}

function Line({ work }: { work: WorkCard }) {
  const { t, local } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const { number, title, stage, sort, fromAt, toAt, risk, team, requester } = work;
  return (
    <Table.Tr>
      <Table.Td>
        <Anchor component={Link} size="sm" to={`/estate/works/${number}`}>
          {number} <bdi>{title}</bdi>
        </Anchor>
        <Text size="xs" c="var(--muted)">
          {t(`works/sorts/${sort}`)}
        </Text>
      </Table.Td>
      <Table.Td>{t(`works/stages/${stage}`)}</Table.Td>
      <Table.Td>
        {fromAt !== null && toAt !== null && `${times.when(fromAt, now)} – ${times.when(toAt, now)}`}
      </Table.Td>
      <Table.Td>{risk && t(`works/levels/${risk}`)}</Table.Td>
      <Table.Td>
        <PersonName person={requester} />
        <Text size="xs" c="var(--muted)">
          {local(team)}
        </Text>
      </Table.Td>
    </Table.Tr>
  );
}

function List() {
  const { t } = useWords();
  const { data, error, refetch } = useWorks();
  if (error && !data) return <ProblemNote error={error} onRetry={() => void refetch()} />;
  if (!data) return <Waiting />;
  if (data.length === 0) return <p>{t('works/none')}</p>;
  return (
    <Table.ScrollContainer minWidth={640}>
      <Table>
        <Table.Tbody>
          {data.map((work) => (
            <Line key={work.number} work={work} />
          ))}
        </Table.Tbody>
      </Table>
    </Table.ScrollContainer>
  );
}

function Dated() {
  const { t } = useWords();
  const { timeZone } = useMe();
  const [by, setBy] = useState<'things' | 'teams'>('things');
  const [span, setSpan] = useState<Span>('month');
  const [at, setAt] = useState(() => dayOf(serverNow(), timeZone) - DAY);
  const stretch = { from: at, to: at + SPANS[span] };
  const { data, error, refetch } = useCalendar(stretch.from, stretch.to);
  const go = (by_: number): void => setAt(dayOf(at + by_ * SPANS[span] + DAY / 2, timeZone));
  return (
    <>
      <div className={classes.tools}>
        <Group gap={4}>
          <Button size="compact-sm" variant="default" onClick={() => go(-1)}>
            {t('works/back')}
          </Button>
          <Button
            size="compact-sm"
            variant="default"
            onClick={() => setAt(dayOf(serverNow(), timeZone) - DAY)}
          >
            {t('works/today')}
          </Button>
          <Button size="compact-sm" variant="default" onClick={() => go(1)}>
            {t('works/on')}
          </Button>
        </Group>
        <SegmentedControl
          size="xs"
          aria-label={t('works/span')}
          value={span}
          data={(['week', 'month', 'quarter'] as const).map((value) => ({
            value,
            label: t(`works/spans/${value}`),
          }))}
          onChange={(value) => setSpan(value)}
        />
        <SegmentedControl
          size="xs"
          aria-label={t('works/rows')}
          value={by}
          data={(['things', 'teams'] as const).map((value) => ({ value, label: t(`works/rowsBy/${value}`) }))}
          onChange={(value) => setBy(value)}
        />
        <Feed />
      </div>
      {error && !data && <ProblemNote error={error} onRetry={() => void refetch()} />}
      {!data && !error && <Waiting />}
      {data && <Calendar calendar={data} stretch={stretch} by={by} />}
      {data && <Freezes calendar={data} />}
    </>
  );
}

/** Work on what is run: over time, and as a list of what is to be written, decided, done and reviewed. */
export function WorksPage() {
  const { t } = useWords();
  const me = useMe();
  const navigate = useNavigate();
  const { data: works = [] } = useWorks();
  const asked = works.filter(({ stage }) => stage === 'asked').length;
  return (
    <EstateFrame
      title={t('works/title')}
      lead={t('works/lead')}
      actions={
        <Group gap="sm">
          <Link to="/estate/works/board">
            {t('works/board')}
            {asked > 0 && ` (${asked})`}
          </Link>
          <Link to="/estate/works/templates">{t('works/templates')}</Link>
          {me.teams.length > 0 && (
            <Button onClick={() => void navigate('/estate/works/new')}>{t('works/new')}</Button>
          )}
        </Group>
      }
    >
      <Dated />
      <h2>{t('works/list')}</h2>
      <List />
    </EstateFrame>
  );
}
