import { Button, Group, Select, Textarea } from '@mantine/core';
import { useForm } from '@mantine/form';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { Problem } from '../../contract/problems';
import { PROBLEM_STAGES, type ProblemTie } from '../../core/problems';
import { ApiProblem, call } from '../api/call';
import { useNow } from '../api/clock';
import { api } from '../api/endpoints';
import estate from '../estate/Estate.module.css';
import { EstateFrame } from '../estate/EstateFrame';
import { ThingRefs } from '../estate/ThingRefs';
import '../messages/causesWords';
import { useWords } from '../messages/useWords';
import { Lost } from '../ui/Lost';
import { ProblemNote } from '../ui/ProblemNote';
import { useProblems } from '../ui/useProblems';
import { useTimes } from '../ui/useTimes';
import { Waiting } from '../ui/Waiting';
import { useCauseKinds, useProblem, useRenewProblems } from './useProblemsOf';

/** What is known: the cause, of which kind, what one does meanwhile, how far one is. */
function Known({ problem }: { problem: Problem }) {
  const { t, local } = useWords();
  const renew = useRenewProblems();
  const toProblems = useProblems();
  const { data: kinds } = useCauseKinds();
  const { number, version, stage, cause, causeKindId, workaround, mayChange } = problem;
  const form = useForm({ initialValues: { stage, cause, causeKindId, workaround } });
  const save = useMutation({
    mutationFn: () =>
      call(api.problems.update, { params: { number }, body: { version, ...form.values }, key: nanoid() }),
    onSuccess: () => {
      notifications.show({ message: t('causes/saved') });
      void renew();
    },
    onError: (error) => form.setErrors(toProblems(error)),
  });
  const isStale = save.error instanceof ApiProblem && save.error.code === 'stale';
  const fixed = { readOnly: !mayChange };
  return (
    <section className={estate.section}>
      <Textarea
        autosize
        minRows={2}
        {...fixed}
        label={t('causes/fields/cause')}
        {...form.getInputProps('cause')}
      />
      <Textarea
        autosize
        minRows={2}
        mt="xs"
        {...fixed}
        label={t('causes/fields/workaround')}
        {...form.getInputProps('workaround')}
      />
      <Group align="end" mt="xs">
        <Select
          {...fixed}
          clearable
          label={t('causes/fields/causeKind')}
          data={(kinds?.kinds ?? []).map(({ id, name }) => ({ value: id, label: local(name) }))}
          {...form.getInputProps('causeKindId')}
        />
        <Select
          {...fixed}
          w={280}
          allowDeselect={false}
          label={t('causes/fields/stage')}
          data={PROBLEM_STAGES.map((value) => ({ value, label: t(`ofProblem/stages/${value}`) }))}
          {...form.getInputProps('stage')}
        />
        {mayChange && (
          <Button loading={save.isPending} onClick={() => save.mutate()}>
            {t('causes/save')}
          </Button>
        )}
      </Group>
      {form.values.stage === 'solved' && stage !== 'solved' && <p>{t('causes/solveTells')}</p>}
      {isStale && <p role="alert">{t('causes/stale')}</p>}
      {!isStale && Object.keys(form.errors).length === 0 && <ProblemNote error={save.error} />}
    </section>
  );
}

function Incidents({ problem }: { problem: Problem }) {
  const { t } = useWords();
  const renew = useRenewProblems();
  const toProblems = useProblems();
  const [typed, setTyped] = useState('');
  const [reason, setReason] = useState('');
  const [dropping, setDropping] = useState<number | null>(null);
  const { number, tied } = problem;
  const tie = useMutation({
    mutationFn: (body: { numbers: number[]; tie: ProblemTie; reason: string }) =>
      call(api.problems.tie, { params: { number }, body, key: nanoid() }),
    onSuccess: () => {
      setDropping(null);
      setReason('');
      setTyped('');
    },
    onSettled: renew,
  });
  const numbers = (typed.match(/\d+/g) ?? []).map(Number).filter((each) => each > 0);
  const faults = toProblems(tie.error);
  return (
    <section className={estate.section}>
      <h2>{t('causes/tied')}</h2>
      {tied.length === 0 && <p className={estate.quiet}>{t('causes/noneTied')}</p>}
      <ul className={estate.list}>
        {tied.map((incident) => (
          <li key={incident.number}>
            <Link to={`/desk/everything/${incident.number}`}>
              {incident.number} <bdi>{incident.title}</bdi>
            </Link>
            <small>
              {t(`states/${incident.state}`)} · <b>{t(`ofProblem/ties/${incident.tie}`)}</b>
              {incident.reason && `: ${incident.reason}`}
            </small>
            <div>
              {incident.tie !== 'confirmed' && (
                <Button
                  size="compact-xs"
                  variant="subtle"
                  onClick={() => tie.mutate({ numbers: [incident.number], tie: 'confirmed', reason: '' })}
                >
                  {t('causes/confirm')}
                </Button>
              )}
              {incident.tie !== 'dropped' && (
                <Button size="compact-xs" variant="subtle" onClick={() => setDropping(incident.number)}>
                  {t('causes/drop')}
                </Button>
              )}
            </div>
            {dropping === incident.number && (
              <Group align="end" gap="xs">
                <Textarea
                  size="xs"
                  autosize
                  label={t('causes/fields/reason')}
                  value={reason}
                  error={faults.reason}
                  onChange={({ target }) => setReason(target.value)}
                />
                <Button
                  size="xs"
                  onClick={() => tie.mutate({ numbers: [incident.number], tie: 'dropped', reason })}
                >
                  {t('causes/save')}
                </Button>
              </Group>
            )}
          </li>
        ))}
      </ul>
      <Group align="end" gap="xs" mt="xs">
        <Textarea
          size="xs"
          autosize
          label={t('causes/fields/numbers')}
          value={typed}
          error={faults.numbers}
          onChange={({ target }) => setTyped(target.value)}
        />
        <Button
          size="xs"
          variant="default"
          disabled={numbers.length === 0}
          onClick={() => tie.mutate({ numbers, tie: 'suspected', reason: '' })}
        >
          {t('causes/tie')}
        </Button>
      </Group>
      {Object.keys(faults).length === 0 && <ProblemNote error={tie.error} />}
    </section>
  );
}

/** How often its incidents come: by week, and since it was solved against before. */
function Figures({ problem }: { problem: Problem }) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const { cost, byWeek, effect, backAt, incidents } = problem;
  const round = (value: number): string => value.toFixed(2);
  return (
    <section className={estate.section}>
      <p>
        {t('causes/incidents', { count: incidents })} ·{' '}
        {t('causes/cost', { span: times.span(cost / 60_000) })}
      </p>
      <p className={estate.quiet}>{t('causes/byWeek', { counts: byWeek.join(', ') })}</p>
      {backAt !== null && <p role="status">{t('causes/back', { when: times.when(backAt, now) })}</p>}
      {effect && (
        <p>
          {effect.high === null
            ? t('causes/effectOpen', { ratio: round(effect.ratio), low: round(effect.low) })
            : t('causes/effect', {
                ratio: round(effect.ratio),
                low: round(effect.low),
                high: round(effect.high),
              })}
        </p>
      )}
    </section>
  );
}

function Ways({ problem }: { problem: Problem }) {
  const { t } = useWords();
  const navigate = useNavigate();
  const { number, title, articleId, works, things, workaround } = problem;
  const article = useMutation({
    mutationFn: () => call(api.problems.article, { params: { number }, key: nanoid() }),
    onSuccess: ({ id }) => void navigate(`/knowledge/articles/${id}`),
  });
  return (
    <section className={estate.section}>
      <p>
        <Link to={`/desk/everything/${number}`}>{t('causes/thread')}</Link>
      </p>
      {articleId !== null ? (
        <p>
          <Link to={`/knowledge/articles/${articleId}`}>{t('causes/toArticle')}</Link>
        </p>
      ) : (
        problem.mayChange &&
        workaround !== '' && (
          <Button size="xs" variant="default" loading={article.isPending} onClick={() => article.mutate()}>
            {t('causes/article')}
          </Button>
        )
      )}
      <ProblemNote error={article.error} />
      <p>
        <Link to={`/estate/works/new?${new URLSearchParams({ problem: String(number), title }).toString()}`}>
          {t('causes/plan')}
        </Link>
      </p>
      {works.length > 0 && <h2>{t('causes/works')}</h2>}
      {works.map((work) => (
        <p key={work.number}>
          <Link to={`/estate/works/${work.number}`}>
            {work.number} <bdi>{work.title}</bdi>
          </Link>
        </p>
      ))}
      {things.length > 0 && <ThingRefs things={things} />}
    </section>
  );
}

function Page({ problem }: { problem: Problem }) {
  const { t, local } = useWords();
  const { number, title, stage, team, assignee } = problem;
  return (
    <EstateFrame
      title={
        <bdi>
          {number} {title}
        </bdi>
      }
      lead={
        <>
          <b>{t(`ofProblem/stages/${stage}`)}</b> · {assignee?.name ?? local(team)}
        </>
      }
    >
      <div className={estate.sides}>
        <div>
          <Known key={problem.version} problem={problem} />
          <Figures problem={problem} />
        </div>
        <div>
          <Ways problem={problem} />
          <Incidents problem={problem} />
        </div>
      </div>
    </EstateFrame>
  );
}

/** A problem: what is known of it, and the incidents behind it. */
export function ProblemPage() {
  const { number } = useParams();
  const { t } = useWords();
  const { data, error, refetch } = useProblem(Number(number));
  if (error instanceof ApiProblem && ['notFound', 'fieldsNotValid'].includes(error.code)) return <Lost />;
  if (!data)
    return (
      <EstateFrame title={t('causes/title')}>
        {error ? <ProblemNote error={error} onRetry={() => void refetch()} /> : <Waiting />}
      </EstateFrame>
    );
  return <Page problem={data} />;
}
