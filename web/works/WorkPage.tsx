import { Button, Group, Modal, Select, Textarea } from '@mantine/core';
import { useForm } from '@mantine/form';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import type { Work } from '../../contract/works';
import { WORK_OUTCOMES, type WorkOutcome } from '../../core/works';
import { ApiProblem, call } from '../api/call';
import { useNow } from '../api/clock';
import { api } from '../api/endpoints';
import estate from '../estate/Estate.module.css';
import { EstateFrame } from '../estate/EstateFrame';
import { ThingRefs } from '../estate/ThingRefs';
import '../messages/worksWords';
import { useWords } from '../messages/useWords';
import { NoticeEditor } from '../estate/notices/NoticeEditor';
import { Lost } from '../ui/Lost';
import { PersonName } from '../ui/PersonName';
import { ProblemNote } from '../ui/ProblemNote';
import { useProblems } from '../ui/useProblems';
import { useTimes } from '../ui/useTimes';
import { Waiting } from '../ui/Waiting';
import { Reckoned } from './Reckoned';
import { useRenewWorks, useWork } from './useWorks';
import { toWorkBody, WorkFields, type WorkValues } from './WorkForm';
import classes from './Works.module.css';

/** Something that is done with the change, with the version that it rests on. */
function useAct(work: Work) {
  const renew = useRenewWorks();
  const { number, version } = work;
  const at = { params: { number }, key: nanoid() };
  return useMutation({
    mutationFn: (act: 'submit' | 'start') =>
      call(act === 'submit' ? api.works.submit : api.works.start, { ...at, body: { version } }),
    onSettled: renew,
  });
}

function Edit({ work, onClose }: { work: Work; onClose(): void }) {
  const { t } = useWords();
  const renew = useRenewWorks();
  const toProblems = useProblems();
  const { title, sort, fromAt, toAt, why, test, takeBack, problemNumber, riskSaid, riskReason, things } =
    work;
  const form = useForm<WorkValues>({
    initialValues: {
      title,
      sort,
      fromAt,
      toAt,
      why,
      test,
      takeBack,
      problemNumber,
      riskSaid,
      riskReason,
      things,
    },
  });
  const { number, version, service } = work;
  const save = useMutation({
    mutationFn: () =>
      call(api.works.update, {
        params: { number },
        body: { ...toWorkBody(form.values), version },
        key: nanoid(),
      }),
    onSuccess: () => {
      void renew();
      onClose();
    },
    onError: (error) => form.setErrors(toProblems(error)),
  });
  const isStale = save.error instanceof ApiProblem && save.error.code === 'stale';
  return (
    <Modal opened size="xl" title={t('works/edit')} onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate();
        }}
      >
        <WorkFields
          form={form}
          asked={{ number, serviceId: service.id, minutes: 60 }}
          isAgreed={work.submittedAt !== null}
        />
        {isStale && <p role="alert">{t('works/stale')}</p>}
        {!isStale && Object.keys(form.errors).length === 0 && <ProblemNote error={save.error} />}
        <Group>
          <Button type="submit" loading={save.isPending}>
            {t('works/saveChanges')}
          </Button>
          <Button variant="default" onClick={onClose}>
            {t('works/cancel')}
          </Button>
        </Group>
      </form>
    </Modal>
  );
}

function End({ work }: { work: Work }) {
  const { t } = useWords();
  const renew = useRenewWorks();
  const toProblems = useProblems();
  const [outcome, setOutcome] = useState<WorkOutcome>('done');
  const [words, setWords] = useState('');
  const { number, version } = work;
  const end = useMutation({
    mutationFn: () =>
      call(api.works.end, { params: { number }, body: { version, outcome, words }, key: nanoid() }),
    onSettled: renew,
  });
  const faults = toProblems(end.error);
  return (
    <section className={estate.section}>
      <h2>{t('works/end')}</h2>
      <Group align="end">
        <Select
          w={180}
          allowDeselect={false}
          label={t('works/outcome')}
          data={WORK_OUTCOMES.map((value) => ({ value, label: t(`works/stages/${value}`) }))}
          value={outcome}
          onChange={(value) => setOutcome(WORK_OUTCOMES.find((each) => each === value) ?? 'done')}
        />
        <Textarea
          style={{ flex: 1 }}
          autosize
          label={t('works/endWords')}
          value={words}
          error={faults.words}
          onChange={({ target }) => setWords(target.value)}
        />
        <Button loading={end.isPending} onClick={() => end.mutate()}>
          {t('works/end')}
        </Button>
      </Group>
      {Object.keys(faults).length === 0 && <ProblemNote error={end.error} />}
    </section>
  );
}

function Review({ work }: { work: Work }) {
  const { t } = useWords();
  const renew = useRenewWorks();
  const [review, setReview] = useState(work.review);
  const { number, version, acts } = work;
  const keep = useMutation({
    mutationFn: () =>
      call(api.works.review, { params: { number }, body: { version, review }, key: nanoid() }),
    onSettled: renew,
  });
  const mayWrite = acts.includes('review');
  if (!mayWrite && work.review === '') return null;
  return (
    <section className={estate.section}>
      <h2>{t('works/review')}</h2>
      {work.needsReview && <p role="status">{t('works/reviewWanted')}</p>}
      <Textarea
        autosize
        minRows={3}
        aria-label={t('works/review')}
        readOnly={!mayWrite}
        value={review}
        onChange={({ target }) => setReview(target.value)}
      />
      {mayWrite && (
        <Button
          mt="xs"
          size="xs"
          variant="default"
          disabled={review.trim() === '' || review === work.review}
          loading={keep.isPending}
          onClick={() => keep.mutate()}
        >
          {t('works/saveChanges')}
        </Button>
      )}
      <ProblemNote error={keep.error} />
    </section>
  );
}

/** What it is, in the order in which those ask who agree to it. */
function What({ work }: { work: Work }) {
  const { t, local } = useWords();
  const { why, test, takeBack, things, service, isStandard, requester, problem, notices } = work;
  const pairs: [string, React.ReactNode][] = [
    [t('works/fields/why'), why],
    [t('works/fields/things'), things.length > 0 && <ThingRefs key="things" things={things} />],
    [t('works/fields/test'), test],
    [t('works/fields/takeBack'), takeBack],
    [t('works/fields/template'), `${local(service.title)}${isStandard ? ` · ${t('works/standard')}` : ''}`],
    [t('works/who'), <PersonName key="who" person={requester} />],
    [
      t('works/mends'),
      problem && (
        <Link key="p" to={`/estate/problems/${problem.number}`}>
          {problem.number} {problem.title}
        </Link>
      ),
    ],
    [
      t('works/announced'),
      notices.length > 0 &&
        notices.map(({ id, title }) => (
          <Link key={id} to={`/estate/notices/${id}`}>
            {local(title)}
          </Link>
        )),
    ],
  ];
  return (
    <section className={estate.section}>
      {pairs.map(([name, value], i) =>
        value ? (
          <div key={i} className={estate.pair}>
            <span>{name}</span>
            <span>{value}</span>
          </div>
        ) : null,
      )}
    </section>
  );
}

function Page({ work }: { work: Work }) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const act = useAct(work);
  const toProblems = useProblems();
  const [open, setOpen] = useState<'edit' | 'announce' | null>(null);
  const { number, title, stage, sort, fromAt, toAt, acts, reckoned, riskSaid, riskReason, things } = work;
  const faults = toProblems(act.error);
  const does = (name: 'submit' | 'start') =>
    acts.includes(name) && (
      <Button
        loading={act.isPending}
        onClick={() =>
          act.mutate(name, {
            onSuccess: () =>
              notifications.show({ message: t(`works/stages/${name === 'submit' ? 'asked' : 'goingOn'}`) }),
          })
        }
      >
        {t(`works/${name}`)}
      </Button>
    );
  return (
    <EstateFrame
      title={
        <bdi>
          {number} {title}
        </bdi>
      }
      lead={
        <>
          <b>{t(`works/stages/${stage}`)}</b> · {t(`works/sorts/${sort}`)}
          {fromAt !== null && toAt !== null && ` · ${times.when(fromAt, now)} – ${times.when(toAt, now)}`}
        </>
      }
      actions={
        <Group gap="xs">
          {does('submit')}
          {does('start')}
          {acts.includes('change') && (
            <Button variant="default" onClick={() => setOpen('edit')}>
              {t('works/edit')}
            </Button>
          )}
          {stage === 'planned' && (
            <Button variant="default" onClick={() => setOpen('announce')}>
              {t('works/announce')}
            </Button>
          )}
        </Group>
      }
    >
      {Object.entries(faults).map(([field, words]) => (
        <p key={field} role="alert">
          {t(`works/fields/${field}`)}: {words}
        </p>
      ))}
      {Object.keys(faults).length === 0 && <ProblemNote error={act.error} />}
      <div className={estate.sides}>
        <div>
          {acts.includes('end') && <End work={work} />}
          <What work={work} />
          <Review key={work.version} work={work} />
        </div>
        <div>
          <section className={estate.section}>
            <Reckoned known={reckoned} own={number} hasStretch={fromAt !== null && toAt !== null} />
            {riskSaid !== null && (
              <p>{t('works/riskOtherwise', { risk: t(`works/levels/${riskSaid}`), reason: riskReason })}</p>
            )}
          </section>
          <p className={classes.links}>
            <Link to={`/desk/everything/${number}`}>{t('works/ticket')}</Link>
          </p>
        </div>
      </div>
      {open === 'edit' && <Edit work={work} onClose={() => setOpen(null)} />}
      {open === 'announce' && (
        <NoticeEditor
          seed={{
            ...{
              kind: 'planned',
              title: { en: title, pt: title },
              things,
              ofWork: number,
              teamId: work.teamId,
            },
            ...(fromAt !== null && { fromAt }),
            untilAt: toAt,
          }}
          onClose={() => setOpen(null)}
        />
      )}
    </EstateFrame>
  );
}

/** A change with all that is known of it, and what there is to do with it. */
export function WorkPage() {
  const { number } = useParams();
  const { t } = useWords();
  const { data, error, refetch } = useWork(Number(number));
  if (error instanceof ApiProblem && ['notFound', 'fieldsNotValid'].includes(error.code)) return <Lost />;
  if (!data)
    return (
      <EstateFrame title={t('works/title')}>
        {error ? <ProblemNote error={error} onRetry={() => void refetch()} /> : <Waiting />}
      </EstateFrame>
    );
  return <Page work={data} />;
}
