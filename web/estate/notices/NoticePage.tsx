import { Button, Checkbox, Group, Textarea } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import type { Notice } from '../../../contract/notices';
import { CALL_BACK_MS } from '../../../core/notices';
import { ApiProblem, call } from '../../api/call';
import { useNow } from '../../api/clock';
import { api } from '../../api/endpoints';
import { EstateFrame } from '../EstateFrame';
import { ThingRefs } from '../ThingRefs';
import estate from '../Estate.module.css';
import '../../messages/noticesWords';
import { useWords } from '../../messages/useWords';
import { BothLanguages } from '../../ui/BothLanguages';
import { InstantInput } from '../../ui/InstantInput';
import { Lost } from '../../ui/Lost';
import { PersonName } from '../../ui/PersonName';
import { ProblemNote } from '../../ui/ProblemNote';
import { useProblems } from '../../ui/useProblems';
import { useTimes } from '../../ui/useTimes';
import { Waiting } from '../../ui/Waiting';
import { useStretchWords } from '../../notices/Bands';
import { NoticeEditor } from './NoticeEditor';
import { useNotice, useRenewNotices, useTieTickets } from '../../notices/useNotices';

const NOTHING = { en: '', pt: '' };

/** For a minute it can be called back; how long that still is stands beside. */
function CallBack({ notice }: { notice: Notice }) {
  const { t } = useWords();
  const now = useNow(1_000);
  const renew = useRenewNotices();
  const callBack = useMutation({
    mutationFn: () => call(api.notices.callBack, { params: { id: notice.id }, key: nanoid() }),
    onSuccess: () => notifications.show({ message: t('notices/calledBack') }),
    onSettled: renew,
  });
  const left = Math.ceil((notice.createdAt + CALL_BACK_MS - now) / 1_000);
  if (!notice.mayCallBack || left <= 0) return null;
  return (
    <p className={estate.band}>
      <Button
        size="compact-sm"
        variant="default"
        loading={callBack.isPending}
        onClick={() => callBack.mutate()}
      >
        {t('notices/callBack')}
      </Button>
      {t('notices/secondsLeft', { count: left })}
      <ProblemNote error={callBack.error} />
    </p>
  );
}

/** Words to everyone tied to it: how it goes on, or that it is over. */
function Say({ notice }: { notice: Notice }) {
  const { t } = useWords();
  const renew = useRenewNotices();
  const toProblems = useProblems();
  const [words, setWords] = useState(NOTHING);
  const [untilAt, setUntilAt] = useState(notice.untilAt);
  const [isEnding, setIsEnding] = useState(false);
  const [isFinishing, setIsFinishing] = useState(notice.openTickets > 0);
  const { id, version, openTickets } = notice;
  const send = useMutation({
    mutationFn: () =>
      isEnding
        ? call(api.notices.end, { params: { id }, body: { version, words, isFinishing }, key: nanoid() })
        : call(api.notices.say, { params: { id }, body: { version, words, untilAt }, key: nanoid() }),
    onSuccess: (answer) => {
      setWords(NOTHING);
      if ('jobId' in answer && answer.jobId !== null) notifications.show({ message: t('notices/jobGoes') });
    },
    onSettled: renew,
  });
  const faults = toProblems(send.error);
  return (
    <section className={estate.section}>
      <h2>{t('notices/tellOn')}</h2>
      <p className={estate.quiet}>{t('notices/tellHelp')}</p>
      <BothLanguages label={t('notices/endWords')} isLong isFixed={false} value={words} onChange={setWords} />
      {faults.words && <p role="alert">{faults.words}</p>}
      <Group align="end" mt="xs" gap="md">
        {!isEnding && (
          <InstantInput
            label={t('notices/fields/untilAt')}
            value={untilAt}
            error={faults.untilAt}
            onChange={setUntilAt}
          />
        )}
        <Checkbox
          label={t('notices/end')}
          checked={isEnding}
          onChange={({ target }) => setIsEnding(target.checked)}
        />
        {isEnding && openTickets > 0 && (
          <Checkbox
            label={t('notices/finish', { count: openTickets })}
            checked={isFinishing}
            onChange={({ target }) => setIsFinishing(target.checked)}
          />
        )}
        <Button loading={send.isPending} onClick={() => send.mutate()}>
          {isEnding
            ? t('notices/endIt')
            : notice.tickets + notice.followers === 0
              ? t('notices/sayPlain')
              : t('notices/say', { count: notice.people + notice.followers })}
        </Button>
      </Group>
      {Object.keys(faults).length === 0 && <ProblemNote error={send.error} />}
    </section>
  );
}

/** What was known when, and what was done: put together from what is on record. */
function Line({ line }: Pick<Notice, 'line'>) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  return (
    <section className={estate.section}>
      <h2>{t('notices/line')}</h2>
      <ol className={estate.list}>
        {line.map(({ at, kind, count, by, words }, i) => (
          <li key={i}>
            <small>{times.when(at, now)}</small>{' '}
            <bdi>{t(`notices/points/${kind}`, { count, by: by ?? '–', words })}</bdi>
            {by !== null && (kind === 'told' || kind === 'ended') && <small>{by}</small>}
          </li>
        ))}
      </ol>
    </section>
  );
}

function Tied({ notice }: { notice: Notice }) {
  const { t } = useWords();
  const renew = useRenewNotices();
  const tie = useTieTickets();
  const [typed, setTyped] = useState('');
  const numbers = (typed.match(/\d+/g) ?? []).map(Number).filter((each) => each > 0);
  const untie = useMutation({
    mutationFn: (number: number) => call(api.notices.untie, { params: { id: notice.id, number } }),
    onSettled: renew,
  });
  return (
    <section className={estate.section}>
      <h2>{t('notices/tied')}</h2>
      {notice.tied.length === 0 && <p className={estate.quiet}>{t('notices/noneTied')}</p>}
      <ul className={estate.list}>
        {notice.tied.map(({ number, title, state, requester }) => (
          <li key={number}>
            <Link to={`/desk/everything/${number}`}>
              {number} <bdi>{title}</bdi>
            </Link>
            <small>
              {t(`states/${state}`)} · <PersonName person={requester} />
            </small>{' '}
            {notice.state !== 'calledBack' && (
              <Button
                size="compact-xs"
                variant="subtle"
                aria-label={t('notices/untie', { number })}
                onClick={() => untie.mutate(number)}
              >
                ×
              </Button>
            )}
          </li>
        ))}
      </ul>
      {notice.tickets > notice.tied.length && (
        <p className={estate.quiet}>
          {t('notices/moreTied', { count: notice.tickets - notice.tied.length })}
        </p>
      )}
      {notice.state !== 'calledBack' && (
        <Group align="end" gap="xs" mt="xs">
          <Textarea
            size="xs"
            autosize
            label={t('notices/tieNumbers')}
            value={typed}
            onChange={({ target }) => setTyped(target.value)}
          />
          <Button
            size="xs"
            variant="default"
            disabled={numbers.length === 0}
            loading={tie.isPending}
            onClick={() => tie.mutate({ id: notice.id, numbers }, { onSuccess: () => setTyped('') })}
          >
            {t('notices/tie')}
          </Button>
        </Group>
      )}
      <ProblemNote error={tie.error ?? untie.error} />
    </section>
  );
}

function Review({ notice }: { notice: Notice }) {
  const { t } = useWords();
  const renew = useRenewNotices();
  const [text, setText] = useState(notice.review);
  const { id, version } = notice;
  const keep = useMutation({
    mutationFn: () =>
      call(api.notices.review, { params: { id }, body: { version, review: text }, key: nanoid() }),
    onSuccess: () => notifications.show({ message: t('notices/reviewed') }),
    onSettled: renew,
  });
  return (
    <section className={estate.section}>
      <h2>{t('notices/review')}</h2>
      <p className={estate.quiet}>{t('notices/reviewHelp')}</p>
      <Textarea
        autosize
        minRows={3}
        aria-label={t('notices/review')}
        value={text}
        readOnly={!notice.mayChange}
        onChange={({ target }) => setText(target.value)}
      />
      {notice.mayChange && (
        <Button
          mt="xs"
          size="xs"
          variant="default"
          disabled={text === notice.review}
          loading={keep.isPending}
          onClick={() => keep.mutate()}
        >
          {t('notices/save')}
        </Button>
      )}
      <ProblemNote error={keep.error} />
    </section>
  );
}

function Facts({ notice }: { notice: Notice }) {
  const { t, local } = useWords();
  const { by, lead, reach, team, services, things, followers, forAgents, ofTicket, ofWork } = notice;
  const pairs: [string, React.ReactNode][] = [
    [t('notices/fields/lead'), lead && <PersonName person={lead} />],
    [t('notices/fields/team'), local(team)],
    [t('notices/by'), <PersonName key="by" person={by} />],
    [t('notices/fields/audience'), t('notices/concerns', { count: reach })],
    [t('notices/about'), services.map(({ title }) => local(title)).join(', ')],
    [t('notices/tied'), notice.tickets > 0 && t('notices/tickets', { count: notice.tickets })],
    ['', followers > 0 && t('notices/followers', { count: followers })],
    [
      '',
      ofTicket !== null && (
        <Link key="t" to={`/desk/everything/${ofTicket}`}>
          {ofTicket}
        </Link>
      ),
    ],
    [
      '',
      ofWork !== null && (
        <Link key="w" to={`/estate/works/${ofWork}`}>
          {ofWork}
        </Link>
      ),
    ],
    [t('notices/fields/forAgents'), forAgents],
  ];
  return (
    <section className={estate.section}>
      <h2>{t('notices/facts')}</h2>
      {pairs.map(([name, value], i) =>
        value ? (
          <div key={i} className={estate.pair}>
            <span>{name}</span>
            <span>{value}</span>
          </div>
        ) : null,
      )}
      {things.length > 0 && <ThingRefs things={things} />}
    </section>
  );
}

function Page({ notice }: { notice: Notice }) {
  const { t, local } = useWords();
  const stretchOf = useStretchWords();
  const [isEditing, setIsEditing] = useState(false);
  const { state, mayChange } = notice;
  const isOpen = state === 'on' || state === 'coming';
  return (
    <EstateFrame
      title={<bdi>{local(notice.title)}</bdi>}
      lead={
        <>
          {t(`notices/kinds/${notice.kind}`)} · {t(`notices/states/${state}`)} · {stretchOf(notice)}
          {notice.isMajor && <b> · {t('notices/major')}</b>}
        </>
      }
      actions={
        mayChange &&
        isOpen && (
          <Button variant="default" onClick={() => setIsEditing(true)}>
            {t('notices/edit')}
          </Button>
        )
      }
    >
      <CallBack notice={notice} />
      <div className={estate.sides}>
        <div>
          {local(notice.words) !== '' && (
            <section className={estate.section}>
              <h2>{t('notices/meanwhile')}</h2>
              <p>
                <bdi>{local(notice.words)}</bdi>
              </p>
            </section>
          )}
          {mayChange && isOpen && <Say key={notice.version} notice={notice} />}
          <Line line={notice.line} />
          {state === 'ended' && <Review key={notice.version} notice={notice} />}
        </div>
        <div>
          <Facts notice={notice} />
          <Tied notice={notice} />
        </div>
      </div>
      {isEditing && <NoticeEditor notice={notice} onClose={() => setIsEditing(false)} />}
    </EstateFrame>
  );
}

/** A notice with all that is known of it, and what there is to say to those who wait. */
export function NoticePage() {
  const { id } = useParams();
  const { t } = useWords();
  const { data, error, refetch } = useNotice(id!);
  if (error instanceof ApiProblem && error.code === 'notFound') return <Lost />;
  if (!data)
    return (
      <EstateFrame title={t('notices/title')}>
        {error ? <ProblemNote error={error} onRetry={() => void refetch()} /> : <Waiting />}
      </EstateFrame>
    );
  return <Page notice={data} />;
}
