import { memo } from 'react';
import { Link } from 'react-router';
import type { TicketRow } from '../../../contract/tickets';
import type { Axis } from '../../../core/axis';
import { useMe } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import type { LiveClock } from '../../ui/clocks';
import { PersonName } from '../../ui/PersonName';
import { useDueWords } from '../ticket/DueByHand';
import { Fuse, useLeftWords } from './Fuse';
import classes from './Worklist.module.css';

export type LiveRow = { ticket: TicketRow; live: LiveClock | null };

/** What names a row: its ticket, and the step of it that it is. */
export const rowIdOf = ({ number, step }: TicketRow): string => (step ? `${number}-${step.id}` : `${number}`);
type Props = LiveRow & { to: string; isSelected: boolean; isChanged: boolean; onPoint(): void };

/** Who must move: you, nobody yet, someone, or whom it waits for. */
function useWho(): (ticket: TicketRow) => { words: string; isYou: boolean } {
  const { t } = useWords();
  const me = useMe();
  return ({ state, heldFor, assignee, approvers, step }) => {
    if (!step && heldFor === 'approval')
      return { words: t('desk/waitsFor', { who: approvers[0] ?? t('heldFor/approval') }), isYou: false };
    if (!step && state === 'held')
      return { words: t('desk/heldFor', { whom: t(`heldFor/${heldFor!}`) }), isYou: false };
    if (state === 'done' || state === 'closed' || state === 'withdrawn')
      return { words: t(`states/${state}`), isYou: false };
    if (!assignee) return { words: t('desk/unassigned'), isYou: false };
    return assignee.id === me.id
      ? { words: t('desk/nowYou'), isYou: true }
      : { words: assignee.name, isYou: false };
  };
}

/** A ticket in two lines, with its fuse on the shared axis. */
export const Row = memo(function Row({
  ticket,
  live,
  to,
  isSelected,
  isChanged,
  onPoint,
  axis,
  now,
}: Props & { axis: Axis; now: number }) {
  const { t, local } = useWords();
  const who = useWho()(ticket);
  const dueWords = useDueWords();
  const { number, kind, title, place, service, requester, priority, step } = ticket;
  return (
    <Link
      className={classes.row}
      to={to}
      data-number={number}
      data-row={rowIdOf(ticket)}
      data-selected={isSelected || undefined}
      data-changed={isChanged || undefined}
      onFocus={onPoint}
    >
      <span className={classes.number}>
        {number}
        <small>{t(step ? `desk/${step.kind === 'approval' ? 'decision' : 'step'}` : `desk/${kind}`)}</small>
      </span>
      <span className={classes.what}>
        <strong>
          <bdi>{step ? local(step.name) : title}</bdi>
        </strong>
        <small>
          <bdi>{step ? title : place}</bdi> · {local(service)}
          {ticket.progress && ` · ${local(ticket.progress.name)}`}
          {ticket.due && ` · ${t('due/short', { when: dueWords(ticket.due) })}`}
        </small>
      </span>
      <span className={`${classes.person} ${classes.wide}`}>
        <PersonName person={requester} />
      </span>
      <span className={`${classes.person} ${classes.wide}`} data-you={who.isYou || undefined}>
        {who.words}
      </span>
      <span className={classes.priority}>{priority}</span>
      <Fuse live={live} axis={axis} now={now} />
    </Link>
  );
});

/** A ticket in the narrowed list beside an open one. */
export function NarrowRow({ ticket, live, to, isSelected, onPoint }: Props) {
  const { local } = useWords();
  const leftWords = useLeftWords()(live, true);
  return (
    <Link
      className={classes.narrow}
      to={to}
      data-number={ticket.number}
      data-selected={isSelected || undefined}
      onFocus={onPoint}
    >
      <span>
        <strong>
          <bdi>{ticket.step ? local(ticket.step.name) : ticket.title}</bdi>
        </strong>
        <small>
          {ticket.number} · {ticket.requester.name}
        </small>
      </span>
      <span className={classes.left} data-tone={live?.tone}>
        {live ? leftWords : ''}
      </span>
    </Link>
  );
}
