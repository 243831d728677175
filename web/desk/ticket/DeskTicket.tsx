import { Link, useNavigate } from 'react-router';
import type { Ticket } from '../../../contract/tickets';
import { ApiProblem } from '../../api/call';
import { useNow } from '../../api/clock';
import { useCalendars } from '../../api/calendars';
import { useTicket } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { readLive } from '../../../core/targets';
import { getPromise } from '../../ui/clocks';
import { Lost } from '../../ui/Lost';
import { ProblemNote } from '../../ui/ProblemNote';
import { useKeys } from '../../ui/useKeys';
import { Waiting } from '../../ui/Waiting';
import { Spent } from '../spent/Spent';
import { PlanSteps } from '../../plan/PlanSteps';
import { Articles } from './Articles';
import { Clocks } from './Clocks';
import classes from './DeskTicket.module.css';
import { Editor } from './Editor';
import { Facts, Requester } from './Facts';
import { RulesOf } from './RulesOf';
import { Next } from './Next';
import { Procedure } from './Procedure';
import { Thread } from './Thread';
import { Known } from './Known';
import { ThingsOf } from './ThingsOf';
import { Together } from './Together';

const TICK_MS = 15_000;
type Place = { list: string; search: string; isFull: boolean };

/** Where a ticket stands beside its list, as the list is seen. */
function addressOf({ list, search, isFull }: Place, number: number): string {
  const full = isFull ? (search ? '&full' : '?full') : '';
  return `/desk/${list}/${number}${search}${full}`;
}

function Page({ ticket, list, search, isFull }: Place & { ticket: Ticket }) {
  const { t, local } = useWords();
  const calendars = useCalendars();
  const clock = getPromise(ticket.clocks);
  const dues = ticket.clocks.flatMap(({ state, dueAt }) =>
    state === 'running' && dueAt !== null ? [dueAt] : [],
  );
  const ticked = useNow(TICK_MS, Math.min(...dues.filter((due) => due > Date.now() - TICK_MS)));
  // What has just happened is not ahead of now.
  const now = Math.max(ticked, ticket.entries.at(-1)?.at ?? 0);
  const { number, kind, service, via, raisedBy, rights, title } = ticket;
  const tone = clock ? readLive(clock, calendars?.[clock.calendarId ?? ''], now).tone : 'plenty';
  const top = [
    number,
    t(`desk/${kind}`),
    local(service.title),
    t('entries/via', { door: t(`doors/${via}`) }),
  ];
  return (
    <article className={classes.ticket} aria-label={`${number}, ${title}`}>
      <div className={`${classes.middle} ${classes.fused}`} data-tone={tone}>
        <header className={classes.top}>
          <small>
            <span>
              {top.join(' · ')}
              {raisedBy && ` · ${raisedBy.name}`}
            </span>
            <Link to={addressOf({ list, search, isFull: !isFull }, number)}>
              {t(isFull ? 'page/narrow' : 'page/full')}
            </Link>
          </small>
          <h1>
            <bdi>{title}</bdi>
          </h1>
        </header>
        <div className={classes.scroll} tabIndex={0} role="region" aria-label={t('page/thread')}>
          <Thread ticket={ticket} now={now} />
        </div>
        {(rights.includes('note') || rights.includes('answer')) && <Editor ticket={ticket} now={now} />}
      </div>
      <aside className={classes.facts} aria-label={t('page/facts')}>
        <Next ticket={ticket} />
        {ticket.plan && <PlanSteps ticket={ticket} list={list} />}
        <Clocks ticket={ticket} now={now} />
        {rights.includes('readNotes') && <ThingsOf key={`things ${ticket.number}`} ticket={ticket} />}
        {rights.includes('readNotes') && <Known key={`known ${ticket.number}`} ticket={ticket} />}
        {rights.includes('note') && <Procedure ticket={ticket} />}
        {rights.includes('note') && <Articles ticket={ticket} />}
        <Requester ticket={ticket} now={now} />
        <Facts ticket={ticket} />
        <Together ticket={ticket} list={list} />
        <Spent ticket={ticket} />
        {rights.includes('note') && <RulesOf number={number} />}
      </aside>
    </article>
  );
}

/** A ticket on the Desk: what happens next, who must move, by when. */
export function DeskTicket({ number, list, search, isFull }: Place & { number: number }) {
  const navigate = useNavigate();
  const { data, error, isPending, refetch } = useTicket(number);
  useKeys({
    escape: () => void navigate(`/desk/${list}${search}`),
    w: () => void navigate(addressOf({ list, search, isFull: !isFull }, number)),
  });
  if (isPending) return <Waiting />;
  if (error instanceof ApiProblem && ['notFound', 'fieldsNotValid'].includes(error.code)) return <Lost />;
  if (!data) return <ProblemNote error={error} onRetry={() => void refetch()} />;
  // Someone who only follows it reads it as its requester does.
  return <Page ticket={data} {...{ list, search, isFull }} />;
}
