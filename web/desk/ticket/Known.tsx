import { Button } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { Link } from 'react-router';
import type { NoticeCard } from '../../../contract/notices';
import type { ProblemCard } from '../../../contract/problems';
import type { Ticket } from '../../../contract/tickets';
import { call } from '../../api/call';
import { useNow } from '../../api/clock';
import { api } from '../../api/endpoints';
import { useRenew } from '../../api/queries';
import '../../messages/causesWords';
import '../../messages/noticesWords';
import '../../messages/worksWords';
import { useWords } from '../../messages/useWords';
import { useTieTickets } from '../../notices/useNotices';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import classes from './DeskTicket.module.css';

function NoticeLink({ notice }: { notice: NoticeCard }) {
  const { t, local } = useWords();
  return (
    <>
      <Link to={`/estate/notices/${notice.id}`}>
        <bdi>{local(notice.title)}</bdi>
      </Link>{' '}
      <small>{t(`notices/states/${notice.state}`)}</small>
    </>
  );
}

/** The notices that it is tied to, those that fit it, and the way to write one of it. */
function OfNotices({ ticket }: { ticket: Ticket }) {
  const { t } = useWords();
  const { number, title, service, rights, kind } = ticket;
  const tie = useTieTickets();
  const { data, error } = useQuery({
    queryKey: ['ticket', number, 'notices'],
    queryFn: () => call(api.notices.ofTicket, { params: { number } }),
  });
  const seed = { new: '1', ticket: String(number), title, service: service.id, team: ticket.team.id };
  const address = `/estate/notices?${new URLSearchParams(seed).toString()}`;
  const mayWrite = rights.includes('note') && kind === 'incident';
  return (
    <>
      {data?.tied.map((notice) => (
        <li key={notice.id}>
          <small>{t('notices/onTicket/tied')}</small> <NoticeLink notice={notice} />
        </li>
      ))}
      {data?.fitting.map((notice) => (
        <li key={notice.id}>
          <small>{t('notices/onTicket/fits')}</small> <NoticeLink notice={notice} />{' '}
          <Button
            size="compact-xs"
            variant="default"
            onClick={() => tie.mutate({ id: notice.id, numbers: [number] })}
          >
            {t('notices/onTicket/tie')}
          </Button>
        </li>
      ))}
      <ProblemNote error={error ?? tie.error} />
      {mayWrite && data?.tied.length === 0 && (
        <li>
          <Link to={address}>
            <small>{t('notices/onTicket/new')}</small>
          </Link>
        </li>
      )}
    </>
  );
}

function ProblemLine({ problem, words }: { problem: ProblemCard; words: string }) {
  const { t } = useWords();
  const { number, title, stage, workaround, articleId } = problem;
  return (
    <>
      <small>{words}</small>{' '}
      <Link to={`/estate/problems/${number}`}>
        {number} <bdi>{title}</bdi>
      </Link>{' '}
      <small>{t(`ofProblem/stages/${stage}`)}</small>
      {workaround !== '' && <div>{workaround}</div>}
      {articleId !== null && <Link to={`/ask/articles/${articleId}`}>{t('causes/toArticle')}</Link>}
    </>
  );
}

/** The problems that it may come of, and known errors whose words fit it. */
function OfProblems({ ticket }: { ticket: Ticket }) {
  const { t } = useWords();
  const { number, title, rights, kind } = ticket;
  const renew = useRenew();
  const { data, error } = useQuery({
    queryKey: ['ticket', number, 'problems'],
    queryFn: () => call(api.problems.ofTicket, { params: { number } }),
  });
  const tie = useMutation({
    mutationFn: (problem: number) =>
      call(api.problems.tie, {
        ...{ params: { number: problem }, key: nanoid() },
        body: { numbers: [number], tie: 'suspected' },
      }),
    onSettled: () => renew(number),
  });
  const address = `/estate/problems?${new URLSearchParams({ new: '1', of: String(number), title }).toString()}`;
  return (
    <>
      {data?.tied.map((problem) => (
        <li key={problem.number}>
          <ProblemLine problem={problem} words={t(`ofProblem/ties/${problem.tie}`)} />
        </li>
      ))}
      {data?.fitting.map((problem) => (
        <li key={problem.number}>
          <ProblemLine
            problem={problem}
            words={problem.stage === 'knownError' ? t('causes/onTicket/known') : ''}
          />{' '}
          {rights.includes('note') && (
            <Button size="compact-xs" variant="default" onClick={() => tie.mutate(problem.number)}>
              {t('causes/onTicket/tie')}
            </Button>
          )}
        </li>
      ))}
      <ProblemNote error={error ?? tie.error} />
      {kind === 'incident' && rights.includes('note') && data?.tied.length === 0 && (
        <li>
          <Link to={address}>
            <small>{t('causes/onTicket/make')}</small>
          </Link>
        </li>
      )}
    </>
  );
}

/** The changes that it may come of. */
function OfWorks({ ticket }: { ticket: Ticket }) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const { number } = ticket;
  const { data, error } = useQuery({
    queryKey: ['ticket', number, 'works'],
    queryFn: () => call(api.works.beside, { params: { number } }),
  });
  if (error) return <ProblemNote error={error} />;
  return data?.map((work) => (
    <li key={work.number} data-beside={work.number}>
      <b>{t('works/beside')}</b>{' '}
      <Link to={`/estate/works/${work.number}`}>
        {work.number} <bdi>{work.title}</bdi>
      </Link>{' '}
      <small>
        {times.when(work.startedAt!, now)} ·{' '}
        {t('works/besideAt', { names: work.things.map(({ name }) => name).join(', ') })} ·{' '}
        {t(`works/stages/${work.stage}`)}
      </small>
    </li>
  ));
}

/** What is known already of what a ticket is about: notices, causes, changes shortly before it. */
export function Known({ ticket }: { ticket: Ticket }) {
  const { t } = useWords();
  const { number, kind } = ticket;
  if (kind === 'problem' || kind === 'change')
    return (
      <section>
        <Link to={`/estate/${kind === 'problem' ? 'problems' : 'works'}/${number}`}>
          {t(`lists/choices/${kind}`)}
        </Link>
      </section>
    );
  return (
    <section aria-labelledby="known-of">
      <h2 id="known-of">{t('notices/onTicket/title')}</h2>
      <ul className={classes.things}>
        <OfNotices ticket={ticket} />
        <OfWorks ticket={ticket} />
        <OfProblems ticket={ticket} />
      </ul>
    </section>
  );
}
