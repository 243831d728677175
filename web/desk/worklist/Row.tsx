import { memo, type KeyboardEvent, type MouseEvent, type ReactNode } from 'react';
import { Link, useNavigate } from 'react-router';
import type { ListRow } from '../../../contract/worklists';
import type { Axis } from '../../../core/axis';
import type { ColumnName, Mark } from '../../../core/worklist';
import { useWords } from '../../messages/useWords';
import type { LiveClock } from '../../ui/clocks';
import { PersonName } from '../../ui/PersonName';
import { Fuse } from './Fuse';
import { rowIdOf, type RowWords } from './useRowWords';
import classes from './Worklist.module.css';

export type LiveRow = { ticket: ListRow; live: LiveClock | null };

/** Columns whose value can be changed where it stands. */
export type EditableColumn = 'who' | 'priority' | 'state' | 'due' | 'title';
const EDITABLE: readonly ColumnName[] = ['who', 'priority', 'state', 'due'];

type Shared = LiveRow & {
  to: string;
  isSelected: boolean;
  isChanged: boolean;
  words: RowWords;
  /** Where it stands in the list, in pixels. */
  top: number;
  height: number;
  onPoint(row: ListRow): void;
};
type Props = Shared & {
  columns: ColumnName[];
  marks: Mark[];
  axis: Axis;
  now: number;
  isChosen: boolean;
  /** Whether the list is entered by keyboard here. */
  isEntry: boolean;
  index: number;
  onChoose(row: ListRow, isRange: boolean): void;
  onEdit(row: ListRow, column: EditableColumn, at: HTMLElement): void;
  onWhy(row: LiveRow): void;
};

/** A step goes by its plan, not by a promise. */
export const hasReckoning = ({ ticket, live }: LiveRow): boolean => live !== null && !ticket.step;

const FOCUSABLE = 'a, button, input';

/** Left and right go from one thing of the row to the next. */
function walkRow(event: KeyboardEvent<HTMLElement>): void {
  const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
  if (
    step === 0 ||
    ((event.target as HTMLElement).tagName === 'INPUT' && (event.target as HTMLInputElement).type === 'text')
  )
    return;
  const all = [...event.currentTarget.querySelectorAll<HTMLElement>(FOCUSABLE)];
  const at = all.indexOf(document.activeElement as HTMLElement);
  const next = at + step < 0 ? event.currentTarget : all[at + step];
  if (!next) return;
  event.preventDefault();
  next.focus();
}

function Cell({
  row,
  column,
  words: say,
  isFocusable,
  onEdit,
}: {
  row: ListRow;
  words: RowWords;
  column: ColumnName;
  isFocusable: boolean;
  onEdit: Props['onEdit'];
}) {
  const { t } = useWords();
  const isWho = column === 'who';
  const who = isWho ? say.who(row) : null;
  const reason = isWho ? say.reason(row.reasons) : null;
  const words = who ? who.words : say.cell(row, column);
  const shown: ReactNode = column === 'requester' ? <PersonName person={row.requester} /> : words;
  const isEditable =
    EDITABLE.includes(column) && !row.step && row.state !== 'closed' && row.state !== 'withdrawn';
  return (
    <span
      role="gridcell"
      className={column === 'priority' ? classes.priority : `${classes.person} ${classes.wide}`}
      data-you={who?.isYou || undefined}
      title={reason?.whole || undefined}
    >
      {isEditable ? (
        <button
          type="button"
          className={classes.edit}
          tabIndex={isFocusable ? 0 : -1}
          aria-label={t('lists/editCell', {
            column: t(`lists/columns/${column}`),
            value: words || t('common/none'),
          })}
          onClick={(event) => onEdit(row, column as EditableColumn, event.currentTarget)}
        >
          {shown || '–'}
        </button>
      ) : (
        shown
      )}
      {reason?.short && <small>{reason.short}</small>}
    </span>
  );
}

function SecondLine({ row, words }: { row: ListRow; words: RowWords }) {
  const { t, local } = useWords();
  const { step, title, place, service, progress, due } = row;
  return (
    <small>
      <bdi>{step ? title : place}</bdi> · {local(service)}
      {progress && ` · ${local(progress.name)}`}
      {due && ` · ${t('due/short', { when: words.due(due) })}`}
    </small>
  );
}

/**
 * A piece of work in a row, with its fuse on the shared axis. Whoever draws it hands over the same functions each time,
 * so that scrolling draws only the rows that come.
 */
export const Row = memo(function Row(props: Props) {
  const {
    ticket,
    live,
    to,
    isSelected,
    isEntry,
    isChanged,
    isChosen,
    words,
    columns,
    marks,
    axis,
    now,
    index,
    top,
    height,
  } = props;
  const { t, local } = useWords();
  const navigate = useNavigate();
  const { number, kind, title, step } = ticket;
  const mark = ticket.mark === null ? undefined : marks[ticket.mark];
  const open = (event: MouseEvent): void => {
    if ((event.target as HTMLElement).closest(FOCUSABLE) || window.getSelection()?.toString()) return;
    void navigate(to);
  };
  return (
    <div
      role="row"
      aria-rowindex={index}
      aria-selected={isChosen}
      className={classes.row}
      style={{ transform: `translateY(${top}px)`, height }}
      tabIndex={isEntry ? 0 : -1}
      data-number={number}
      data-row={rowIdOf(ticket)}
      data-selected={isSelected || undefined}
      data-changed={isChanged || undefined}
      data-chosen={isChosen || undefined}
      data-mark={mark?.look}
      title={mark?.means}
      onClick={open}
      onFocus={() => props.onPoint(ticket)}
      onKeyDown={walkRow}
    >
      <span role="gridcell" className={classes.number}>
        {!step && (
          <input
            type="checkbox"
            tabIndex={-1}
            aria-label={t('lists/choose', { number })}
            checked={isChosen}
            onChange={({ nativeEvent }) =>
              props.onChoose(ticket, (nativeEvent as unknown as { shiftKey?: boolean }).shiftKey ?? false)
            }
          />
        )}
        <span>{number}</span>
        <small>{t(step ? `desk/${step.kind === 'approval' ? 'decision' : 'step'}` : `desk/${kind}`)}</small>
      </span>
      <span role="gridcell" className={classes.what}>
        <strong>
          <Link to={to} tabIndex={isEntry ? 0 : -1}>
            <bdi>{step ? local(step.name) : title}</bdi>
          </Link>
        </strong>
        <SecondLine row={ticket} words={words} />
      </span>
      {columns.map((column) => (
        <Cell key={column} row={ticket} {...{ column, words }} isFocusable={isEntry} onEdit={props.onEdit} />
      ))}
      <span role="gridcell" className={classes.fuseCell}>
        <Fuse
          {...{ live, axis, now, words }}
          isFocusable={isEntry}
          onWhy={hasReckoning(props) ? () => props.onWhy({ ticket, live }) : undefined}
        />
      </span>
    </div>
  );
});

/** A ticket in the narrowed list beside an open one. */
export const NarrowRow = memo(function NarrowRow(props: Shared) {
  const { ticket, live, to, isSelected, words, top, height } = props;
  const { local } = useWords();
  return (
    <Link
      className={classes.narrow}
      style={{ transform: `translateY(${top}px)`, height }}
      to={to}
      data-number={ticket.number}
      data-selected={isSelected || undefined}
      onFocus={() => props.onPoint(ticket)}
    >
      <span>
        <strong>
          <bdi>{ticket.step ? local(ticket.step.name) : ticket.title}</bdi>
        </strong>
        <small>
          <bdi>{ticket.requester.name}</bdi> · {ticket.number}
        </small>
      </span>
      <span className={classes.left} data-tone={live?.tone}>
        {words.left(live, true)}
      </span>
    </Link>
  );
});
