import { Button, Group, Modal, Select, Textarea, TextInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import type { ProblemCard, RecurringGroup } from '../../contract/problems';
import { call } from '../api/call';
import { useNow } from '../api/clock';
import { api } from '../api/endpoints';
import { useMe, useTeams } from '../api/queries';
import estate from '../estate/Estate.module.css';
import { EstateFrame } from '../estate/EstateFrame';
import '../messages/causesWords';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { useProblems } from '../ui/useProblems';
import { useTimes } from '../ui/useTimes';
import { Waiting } from '../ui/Waiting';
import { useBreaking, useProblemList, useRenewProblems } from './useProblemsOf';

/** What keeps breaking is looked for within so many days. */
const DAYS = 90;

type Seed = { title: string; numbers: number[]; thingId: string | null };

function NewProblem({ seed, onClose }: { seed: Seed; onClose(): void }) {
  const { t, local } = useWords();
  const me = useMe();
  const navigate = useNavigate();
  const renew = useRenewProblems();
  const toProblems = useProblems();
  const { data: teams = [] } = useTeams();
  const [title, setTitle] = useState(seed.title);
  const [teamId, setTeamId] = useState<string | null>(me.teams[0]?.teamId ?? null);
  const [cause, setCause] = useState('');
  const make = useMutation({
    mutationFn: () =>
      call(api.problems.create, {
        body: { title, teamId: teamId!, numbers: seed.numbers, thingId: seed.thingId, cause },
        key: nanoid(),
      }),
    onSuccess: ({ number }) => {
      void renew();
      void navigate(`/estate/problems/${number}`);
    },
  });
  const faults = toProblems(make.error);
  return (
    <Modal opened title={t('causes/new')} onClose={onClose}>
      {seed.numbers.length > 0 && (
        <p>
          {t('causes/incidents', { count: seed.numbers.length })}: {seed.numbers.join(', ')}
        </p>
      )}
      <TextInput
        label={t('causes/fields/title')}
        value={title}
        error={faults.title}
        onChange={({ target }) => setTitle(target.value)}
      />
      <Select
        label={t('causes/fields/team')}
        searchable
        allowDeselect={false}
        data={teams.map(({ id, name }) => ({ value: id, label: local(name) }))}
        value={teamId}
        error={faults.teamId}
        onChange={setTeamId}
      />
      <Textarea
        autosize
        minRows={2}
        label={t('causes/fields/cause')}
        value={cause}
        onChange={({ target }) => setCause(target.value)}
      />
      {Object.keys(faults).length === 0 && <ProblemNote error={make.error} />}
      {faults.numbers && <p role="alert">{faults.numbers}</p>}
      <Group mt="sm">
        <Button disabled={teamId === null} loading={make.isPending} onClick={() => make.mutate()}>
          {t('causes/new')}
        </Button>
        <Button variant="default" onClick={onClose}>
          {t('causes/cancel')}
        </Button>
      </Group>
    </Modal>
  );
}

function Line({ problem }: { problem: ProblemCard }) {
  const { t, local } = useWords();
  const { number, title, stage, team, assignee, incidents, openIncidents } = problem;
  const facts = [
    t(`ofProblem/stages/${stage}`),
    incidents > 0 && t('causes/incidents', { count: incidents }),
    openIncidents > 0 && t('causes/openIncidents', { count: openIncidents }),
    assignee?.name ?? local(team),
  ];
  return (
    <li>
      <Link to={`/estate/problems/${number}`}>
        {number} <bdi>{title}</bdi>
      </Link>
      <br />
      <small>{facts.filter(Boolean).join(' · ')}</small>
    </li>
  );
}

/** A group of incidents that may have one cause, with what it cost. */
function Breaks({ group, onOpen }: { group: RecurringGroup; onOpen(seed: Seed): void }) {
  const { t, local } = useWords();
  const times = useTimes();
  const me = useMe();
  const { thing, service, title, numbers, cost, problem } = group;
  const name = thing?.name ?? title;
  return (
    <li>
      {thing ? (
        <Link to={`/estate/${thing.id}`}>
          <bdi>{thing.name}</bdi>
        </Link>
      ) : (
        <bdi>{title}</bdi>
      )}
      <br />
      <small>
        {[
          t('causes/incidents', { count: numbers.length }),
          t('causes/cost', { span: times.span(cost / 60_000) }),
          service && local(service),
        ]
          .filter(Boolean)
          .join(' · ')}
      </small>{' '}
      {problem ? (
        <small>
          <Link to={`/estate/problems/${problem.number}`}>{t('causes/belongs', problem)}</Link>
        </small>
      ) : (
        me.teams.length > 0 && (
          <Button
            size="compact-xs"
            variant="default"
            onClick={() => onOpen({ title: name, numbers, thingId: thing?.id ?? null })}
          >
            {t('causes/new')}
          </Button>
        )
      )}
    </li>
  );
}

function Breaking({ onOpen }: { onOpen(seed: Seed): void }) {
  const { t } = useWords();
  const { data, error, refetch } = useBreaking(DAYS);
  return (
    <section className={estate.section}>
      <h2>{t('causes/breaking')}</h2>
      <p className={estate.quiet}>{t('causes/breakingLead', { days: DAYS })}</p>
      {error && !data && <ProblemNote error={error} onRetry={() => void refetch()} />}
      {!data && !error && <Waiting />}
      {data?.length === 0 && <p>{t('causes/breakingNone')}</p>}
      <ul className={estate.list}>
        {data?.slice(0, 30).map((group) => (
          <Breaks key={group.numbers[0]} group={group} onOpen={onOpen} />
        ))}
      </ul>
    </section>
  );
}

/** Problems, those that are looked into first; beside them what keeps breaking. */
export function ProblemsPage() {
  const { t } = useWords();
  const me = useMe();
  useNow(60_000);
  const [search, setSearch] = useSearchParams();
  const asked: Seed | null = search.has('new')
    ? {
        title: search.get('title') ?? '',
        numbers: search
          .getAll('of')
          .map(Number)
          .filter((each) => each > 0),
        thingId: search.get('thing'),
      }
    : null;
  const [seed, setSeed] = useState<Seed | null>(asked);
  const { data, error, refetch } = useProblemList();
  const open = data?.filter(({ stage }) => stage !== 'solved') ?? [];
  const solved = data?.filter(({ stage }) => stage === 'solved') ?? [];
  return (
    <EstateFrame
      title={t('causes/title')}
      lead={t('causes/lead')}
      actions={
        me.teams.length > 0 && (
          <Button onClick={() => setSeed({ title: '', numbers: [], thingId: null })}>
            {t('causes/new')}
          </Button>
        )
      }
    >
      {error && !data && <ProblemNote error={error} onRetry={() => void refetch()} />}
      {!data && !error && <Waiting />}
      <div className={estate.halves}>
        <div>
          {data && open.length === 0 && <p>{t('causes/none')}</p>}
          {open.length > 0 && (
            <section className={estate.section}>
              <h2>{t('causes/open')}</h2>
              <ul className={estate.list}>
                {open.map((problem) => (
                  <Line key={problem.number} problem={problem} />
                ))}
              </ul>
            </section>
          )}
          {solved.length > 0 && (
            <section className={estate.section}>
              <h2>{t('causes/solvedList')}</h2>
              <ul className={estate.list}>
                {solved.map((problem) => (
                  <Line key={problem.number} problem={problem} />
                ))}
              </ul>
            </section>
          )}
        </div>
        <Breaking onOpen={setSeed} />
      </div>
      {seed && (
        <NewProblem
          seed={seed}
          onClose={() => {
            setSeed(null);
            setSearch({});
          }}
        />
      )}
    </EstateFrame>
  );
}
