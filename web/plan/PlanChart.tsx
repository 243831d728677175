import { useMemo, type CSSProperties } from 'react';
import { Link, useParams } from 'react-router';
import type { PlanStepView, PlanView } from '../../contract/plans';
import type { Ticket } from '../../contract/tickets';
import { createAxisBetween, type Axis } from '../../core/axis';
import { useNow } from '../api/clock';
import { useTicket } from '../api/queries';
import { useWords } from '../messages/useWords';
import { Lost } from '../ui/Lost';
import { ProblemNote } from '../ui/ProblemNote';
import { LOCALES } from '../../core/forms';
import { useMe } from '../api/queries';
import { useTimes } from '../ui/useTimes';
import { Waiting } from '../ui/Waiting';
import classes from './PlanChart.module.css';
import { PlanChanges } from './PlanChanges';
import { StepActions } from './StepActions';
import { usePlanSentence, useStepOwner, useStepWords } from './useStepWords';
import { dateFormat } from '../ui/dateFormat';

const HOUR = 3_600_000;
/** Beyond this, words would run out at the right. */
const INSIDE_FROM = 0.72;
/** The least room between two days' labels. */
const LABEL_WIDTH = 0.055;
const share = (x: number): string => `${(x * 100).toFixed(3)}%`;

function useAxis({ startedAt, promisedAt, forecastAt, windows }: PlanView): Axis {
  return useMemo(
    () =>
      createAxisBetween(
        {
          windowsBetween: (a, b) =>
            windows
              .filter(({ from, to }) => to > a && from < b)
              .map(({ from, to }) => ({ from: Math.max(from, a), to: Math.min(to, b) })),
        },
        startedAt - 2 * HOUR,
        Math.max(promisedAt, forecastAt) + 6 * HOUR,
      ),
    [startedAt, promisedAt, forecastAt, windows],
  );
}

/** The first open instant of each day, as far as their labels have room. */
function useDays(axis: Axis): { at: number; label: string }[] {
  const { language } = useWords();
  const { timeZone } = useMe();
  const format = dateFormat(LOCALES[language], { weekday: 'short', day: 'numeric', timeZone });
  const days: { at: number; label: string }[] = [];
  for (const at of axis.ticks(1)) {
    const label = format.format(at);
    const last = days.at(-1);
    if (last?.label === label) continue;
    if (!last || axis.position(at) - axis.position(last.at) > LABEL_WIDTH) days.push({ at, label });
  }
  return days;
}

type Drawn = { axis: Axis; now: number };
type Bar = { from: number; to: number; mode: 'past' | 'ahead' };

function barsOf(
  { state, startedAt, finishedAt, earliestStart, earliestFinish, isWanted }: PlanStepView,
  now: number,
): Bar[] {
  if (state === 'done') return [{ from: startedAt ?? finishedAt!, to: finishedAt!, mode: 'past' }];
  if (state === 'failed') return [{ from: startedAt ?? now, to: now, mode: 'past' }];
  if (state === 'active')
    return [
      { from: startedAt!, to: now, mode: 'past' },
      { from: now, to: earliestFinish, mode: 'ahead' },
    ];
  return state === 'waiting' && isWanted ? [{ from: earliestStart, to: earliestFinish, mode: 'ahead' }] : [];
}

function Bars({ step, axis, now }: Drawn & { step: PlanStepView }) {
  const wordsOf = useStepWords({ isShort: true });
  const bars = barsOf(step, now);
  const first = bars[0];
  const end = bars.at(-1)?.to ?? Math.max(axis.from, step.finishedAt ?? now);
  const isInside = axis.position(end) > INSIDE_FROM;
  const at = isInside ? axis.position(first?.from ?? end) : axis.position(end);
  const isOpen = step.state === 'active' || step.state === 'waiting';
  return (
    <div
      className={classes.track}
      data-state={step.state}
      data-decides={(step.decides && isOpen) || undefined}
    >
      {bars.map(({ from, to, mode }) => (
        <span
          key={mode}
          className={classes.bar}
          data-mode={mode}
          style={{ left: share(axis.position(from)), width: share(axis.position(to) - axis.position(from)) }}
        />
      ))}
      <span className={classes.words} data-inside={isInside || undefined} style={{ left: share(at) }}>
        {wordsOf(step)}
      </span>
    </div>
  );
}

/** The people who are asked to agree: those who have said something, until it is decided the others too. */
function Voters({ ticket, step }: { ticket: Ticket; step: PlanStepView }) {
  const { t } = useWords();
  const approval = ticket.approvals.find(({ id }) => id === step.approvalId);
  if (!approval) return null;
  const shown = approval.asks.filter(({ decision }) => decision || approval.outcome === 'open');
  return (
    <small>
      {shown
        .map(
          ({ voter, decision }) =>
            `${voter.name}: ${decision ? t(`plan/voted/${decision}`) : t('plan/asked')}`,
        )
        .join(' · ')}
    </small>
  );
}

function Row({ ticket, step, axis, now }: Drawn & { ticket: Ticket; step: PlanStepView }) {
  const { local } = useWords();
  const ownerOf = useStepOwner();
  const owner =
    step.approvalId === null ? <small>{ownerOf(step)}</small> : <Voters ticket={ticket} step={step} />;
  return (
    <li className={classes.row}>
      {step.moves.length > 0 ? (
        <details className={classes.name}>
          <summary>
            {local(step.name)}
            {owner}
          </summary>
          <StepActions number={ticket.number} step={step} />
        </details>
      ) : (
        <div className={classes.name}>
          {local(step.name)}
          {owner}
        </div>
      )}
      <Bars step={step} axis={axis} now={now} />
    </li>
  );
}

function WaysBack({ plan }: { plan: PlanView }) {
  const { t, local } = useWords();
  const times = useTimes();
  const steps = plan.legs.flatMap((leg) => leg.steps);
  return (
    <details className={classes.ways}>
      <summary>{t('plan/whatBrings')}</summary>
      {plan.waysBack.length === 0 && <p>{t('plan/noWay')}</p>}
      <ul>
        {plan.waysBack.map(({ step: id, shorterBy }) => (
          <li key={id}>
            {t('plan/way', {
              step: local(steps.find((step) => step.id === id)!.name),
              span: times.span(shorterBy / 60_000),
            })}
          </li>
        ))}
      </ul>
    </details>
  );
}

function Chart({ ticket, plan, list }: { ticket: Ticket; plan: PlanView; list: string }) {
  const { t, local } = useWords();
  const times = useTimes();
  const now = useNow(30_000);
  const axis = useAxis(plan);
  const days = useDays(axis);
  const { words, isLate } = usePlanSentence()(plan);
  const { number, title, requester, service } = ticket;
  const at = (instant: number): CSSProperties => ({ left: share(axis.position(instant)) });
  return (
    <article className={classes.page} aria-label={t('plan/chart', { title })}>
      <header className={classes.head}>
        <small>
          {number} · {local(service.title)} · {requester.name} ·{' '}
          <Link to={`/desk/${list}/${number}`}>{t('plan/back')}</Link>
        </small>
        <h1>
          <bdi>{title}</bdi>
        </h1>
        <p data-late={isLate || undefined}>{words}</p>
        {isLate && plan.finishedAt === null && <WaysBack plan={plan} />}
        <PlanChanges ticket={ticket} />
      </header>
      <div className={classes.chart}>
        <div className={classes.ground} aria-hidden>
          {days.map(({ at: day, label }) => (
            <span key={day} className={classes.day} style={at(day)}>
              {label}
            </span>
          ))}
          {axis.pieces
            .filter(({ isFolded }) => isFolded)
            .map(({ from, x0, x1 }) => (
              <span key={from} className={classes.fold} style={{ left: share(x0), width: share(x1 - x0) }} />
            ))}
          <span className={classes.now} style={at(now)}>
            <b>{times.hour(now)}</b>
          </span>
          <span className={classes.promise} style={at(plan.promisedAt)}>
            <b>{t('plan/promiseMark')}</b>
          </span>
        </div>
        {plan.legs.map(({ id, name, steps }) => (
          <section key={id} className={classes.leg}>
            <h2>{local(name)}</h2>
            <ul>
              {steps.map((step) => (
                <Row key={step.id} {...{ ticket, step, axis, now }} />
              ))}
            </ul>
          </section>
        ))}
      </div>
    </article>
  );
}

/** A ticket's plan in time: done, under way and to come, time to spare, and what decides the date. */
export function PlanChart() {
  const { number = '', list = 'nextUp' } = useParams();
  const { data, error, isPending, refetch } = useTicket(Number(number));
  if (isPending) return <Waiting />;
  if (error && !data) return <ProblemNote error={error} onRetry={() => void refetch()} />;
  if (!data.plan) return <Lost />;
  return <Chart ticket={data} plan={data.plan} list={list} />;
}
