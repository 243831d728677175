import { useElementSize } from '@mantine/hooks';
import { useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import type { ListRow } from '../../../contract/worklists';
import type { MoveName } from '../../../core/tickets';
import { useMe } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { useLastChange } from '../../frame/Frame';
import { ProblemNote } from '../../ui/ProblemNote';
import { Reckoning } from '../../ui/Reckoning';
import { useKeys } from '../../ui/useKeys';
import { newMove, useMove } from '../../ui/useMove';
import { useStable } from '../../ui/useStable';
import { Waiting } from '../../ui/Waiting';
import { BulkBar } from './BulkBar';
import { CellEditor, type Editing } from './CellEditor';
import { ColumnNames } from './ColumnNames';
import { colsOf } from './colsOf';
import { Dayline, type Stretch } from './Dayline';
import { Foot } from './Foot';
import { Head } from './Head';
import { MoveFromList, type ListMove } from './MoveFromList';
import { hasReckoning, NarrowRow, Row, type EditableColumn, type LiveRow } from './Row';
import { Rows } from './Rows';
import { SurgeBand } from './SurgeBand';
import { useAxis } from './useAxis';
import { useChosen } from './useChosen';
import { useDensity } from './useDensity';
import { useFieldWords } from '../../ui/useFieldWords';
import type { SeenChange, SeenList } from './useList';
import { useListRows } from './useListRows';
import { getNextDue, useLiveRows } from './useLiveRows';
import { rowIdOf, useRowWords } from './useRowWords';
import classes from './Worklist.module.css';

type Props = {
  list: SeenList;
  openNumber: number | null;
  isFull: boolean;
  search: string;
  onSee(change: SeenChange): void;
};

const NARROW_HEIGHT = 53;
const USUAL_HEAD = 122;

/** What a list is grouped by, of a row, in words. */
function useGroupOf({ groupBy }: SeenList): ((row: LiveRow) => string) | null {
  const { local, t } = useWords();
  const { valueWords, fieldName } = useFieldWords();
  return useMemo(() => {
    if (groupBy === null) return null;
    return ({ ticket }: LiveRow): string => {
      switch (groupBy) {
        case 'teamId':
          return local(ticket.team.name);
        case 'assigneeId':
          return ticket.assignee?.name ?? t('lists/nobody');
        case 'serviceId':
          return local(ticket.service);
        case 'siteId':
          return ticket.site ?? t('common/none');
        case 'heldFor':
          return ticket.heldFor
            ? t('desk/heldFor', { whom: t(`heldFor/${ticket.heldFor}`) })
            : t('lists/notHeld');
        case 'state':
          return valueWords('state', ticket.state);
        case 'priority':
          return `${fieldName('priority')} ${ticket.priority}`;
      }
    };
    // Words are made anew with the language only.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [groupBy, local, t]);
}

/** A worklist in time: rows with their fuses on one axis, the day line above it; narrowed beside an open ticket. */
export function TimeView({ list, openNumber, isFull, search, onSee }: Props) {
  const { t } = useWords();
  const me = useMe();
  const navigate = useNavigate();
  const scroller = useRef<HTMLDivElement>(null);
  const isPointedAt = useRef(false);
  const {
    query,
    rows: tickets,
    total,
    waiting,
    settle,
  } = useListRows(list, { holds: () => isPointedAt.current });
  const { calendars, now, toLive } = useLiveRows(tickets);
  const words = useRowWords();
  const last = useLastChange();
  const axis = useAxis(calendars?.[me.calendarId], now);
  const [stretch, setStretch] = useState<Stretch | null>(null);
  const [pointed, setPointed] = useState<string | null>(null);
  const [moving, setMoving] = useState<ListMove | null>(null);
  const [asked, setAsked] = useState<LiveRow | null>(null);
  const [editing, setEditing] = useState<Editing | null>(null);
  const { density, toggle } = useDensity();
  const groupOf = useGroupOf(list);
  const isOpen = openNumber !== null;

  const all = useMemo(() => tickets.map(toLive), [tickets, toLive]);
  const rows = useMemo(
    () =>
      all.filter((row) => {
        const due = stretch && getNextDue(row);
        return !stretch || (due !== null && due.at >= stretch.from && due.at <= stretch.to);
      }),
    [all, stretch],
  );
  const at = useMemo(
    () =>
      isOpen
        ? rows.findIndex(({ ticket }) => ticket.number === openNumber)
        : pointed === null
          ? -1
          : rows.findIndex(({ ticket }) => rowIdOf(ticket) === pointed),
    [rows, isOpen, openNumber, pointed],
  );
  // Where the row was that has left the list, the next one is.
  const [place, setPlace] = useState(0);
  if (at >= 0 && at !== place) setPlace(at);
  const hasLeft = at < 0 && rows.length > 0 && (isOpen || pointed !== null);
  const selected = rows[at] ?? (hasLeft && !isOpen ? rows[Math.min(place, rows.length - 1)]! : null);
  const current = selected && !isOpen ? rowIdOf(selected.ticket) : null;
  useEffect(() => {
    // The focus went with the row that has left.
    if (hasLeft && current !== null && document.activeElement === document.body)
      document.querySelector<HTMLElement>(`[data-row="${current}"]`)?.focus();
  }, [hasLeft, current]);
  const chosen = useChosen(useMemo(() => rows.map(({ ticket }) => ticket), [rows]));
  const addressOf = (number: number): string => `/desk/${list.id}/${number}${search}`;
  const take = useMove(selected ? selected.ticket : { number: 0, version: 0 });

  function step(by: number): void {
    const from = hasLeft && !isOpen ? Math.min(place, rows.length - 1) : at;
    // Below a row that has left stands the one that came into its place.
    const to = hasLeft && isOpen ? (by > 0 ? place : place - 1) : from < 0 ? 0 : from + by;
    const row = rows[Math.min(rows.length - 1, Math.max(0, to))];
    if (!row) return;
    if (isOpen) return void navigate(addressOf(row.ticket.number));
    const rowId = rowIdOf(row.ticket);
    setPointed(rowId);
    // A row further away is drawn first.
    requestAnimationFrame(() => document.querySelector<HTMLElement>(`[data-row="${rowId}"]`)?.focus());
  }
  const onSelected = (act: (row: LiveRow) => void) => (selected && !isOpen ? () => act(selected) : undefined);
  // Steps are moved where their ticket is open.
  const onTicket = (act: (row: ListRow) => void) =>
    selected?.ticket.step ? undefined : onSelected(({ ticket }) => act(ticket));
  const edit = (column: EditableColumn) =>
    onTicket((row) => {
      const place = document.querySelector(`[data-row="${rowIdOf(row)}"]`);
      if (place) setEditing({ row, column, at: place.getBoundingClientRect() });
    });
  useKeys({
    arrowdown: isFull ? undefined : () => step(1),
    arrowup: isFull ? undefined : () => step(-1),
    pagedown: isOpen ? undefined : () => step(12),
    pageup: isOpen ? undefined : () => step(-12),
    home: isOpen ? undefined : () => step(-rows.length),
    end: isOpen ? undefined : () => step(rows.length),
    enter: onSelected(({ ticket }) => void navigate(addressOf(ticket.number))),
    t: onTicket((row) => take.mutate(newMove(row, 'take', 'agent'))),
    h: onTicket((row) => setMoving({ row, name: 'hold' })),
    d: onTicket((row) => setMoving({ row, name: 'finish' })),
    g: edit('who'),
    p: edit('priority'),
    e: edit('title'),
    s: edit('state'),
    x: onTicket((row) => chosen.toggle(row, false)),
    escape: !isOpen && chosen.count > 0 ? chosen.clear : undefined,
    y: onSelected((row) => (hasReckoning(row) ? setAsked(row) : undefined)),
    ',': isOpen ? undefined : toggle,
  });

  const dues = useMemo(
    () =>
      all.flatMap((row) => {
        const due = getNextDue(row);
        return due === null ? [] : [{ ...due, number: row.ticket.number, title: row.ticket.title }];
      }),
    [all],
  );
  // The marks may come a moment after the rows: both in one frame are felt while scrolling.
  const marked = useDeferredValue(dues);
  const { hasNextPage, isFetchingNextPage, fetchNextPage } = query;
  // New with each page: one that brings nothing of the stretch asks for the next.
  const onEnd = useCallback(() => {
    if (hasNextPage && !isFetchingNextPage) void fetchNextPage();
  }, [hasNextPage, isFetchingNextPage, fetchNextPage]);
  const onSettle = useStable(settle);
  const onDensity = useStable(toggle);
  const onPoint = useStable((row: ListRow) => setPointed(rowIdOf(row)));
  const onChoose = useStable(chosen.toggle);
  const onEdit = useStable((row: ListRow, column: EditableColumn, from: HTMLElement) =>
    setEditing({ row, column, at: from.getBoundingClientRect() }),
  );
  const moveTo = (row: ListRow, name: MoveName): void => {
    setEditing(null);
    setMoving({ row, name });
  };
  const { ref: head, height: headHeight } = useElementSize();
  const height = isOpen ? NARROW_HEIGHT : density === 'dense' ? 32 : 46;
  return (
    <div
      className={classes.list}
      ref={scroller}
      data-density={density}
      onPointerEnter={() => (isPointedAt.current = true)}
      onPointerLeave={() => {
        isPointedAt.current = false;
        settle();
      }}
    >
      <div className={classes.head} ref={head}>
        <Head
          {...{ list, now, search, onSee, chosen: stretch, isNarrow: isOpen, total, waiting: waiting.length }}
          onSettle={onSettle}
          onChoose={setStretch}
        />
        {!isOpen && axis && (
          <div className={classes.wide}>
            <Dayline {...{ axis, now, chosen: stretch }} dues={marked} onChoose={setStretch} />
          </div>
        )}
        {!isOpen && <ColumnNames list={list} density={density} onDensity={onDensity} />}
      </div>
      {query.isPending && <Waiting />}
      {query.error && !query.data && <ProblemNote error={query.error} onRetry={() => void query.refetch()} />}
      {query.data && rows.length === 0 && (
        <p className={classes.empty}>{t(list.where || stretch ? 'lists/emptyNarrowed' : 'desk/empty')}</p>
      )}
      <div
        role={isOpen ? undefined : 'grid'}
        aria-label={isOpen ? undefined : t('lists/rows')}
        aria-rowcount={isOpen ? undefined : total?.isMore ? -1 : (total?.count ?? -1)}
        aria-multiselectable={isOpen ? undefined : true}
        className={classes.grid}
        style={{ '--cols': colsOf(list.definition.columns) } as React.CSSProperties}
      >
        <Rows
          rows={rows}
          groupOf={groupOf}
          height={height}
          scroller={scroller}
          headHeight={headHeight || USUAL_HEAD}
          inSight={at < 0 ? null : at}
          label={t('lists/rows')}
          isGrid={!isOpen}
          onEnd={onEnd}
        >
          {(row, place) => {
            const { ticket } = row;
            const shared = {
              ...row,
              to: addressOf(ticket.number),
              isSelected: selected?.ticket === ticket,
              words,
              onPoint,
              isChanged: last?.number === ticket.number && last.actorId !== me.id,
              top: place.top,
              height: place.height,
            };
            if (isOpen || !axis) return <NarrowRow key={rowIdOf(ticket)} {...shared} />;
            return (
              <Row
                key={rowIdOf(ticket)}
                {...{ ...shared, axis, now, index: place.index + 1 }}
                isEntry={selected ? selected.ticket === ticket : place.index === 0}
                columns={list.definition.columns}
                marks={list.definition.marks}
                isChosen={chosen.has(ticket)}
                onChoose={onChoose}
                onWhy={setAsked}
                onEdit={onEdit}
              />
            );
          }}
        </Rows>
      </div>
      {query.isFetchingNextPage && <Waiting />}
      {!isOpen && (
        // At the foot: what comes there moves no row under the pointer.
        <div className={classes.bottom}>
          {chosen.count > 0 ? (
            <BulkBar list={list} chosen={chosen} total={total} />
          ) : (
            <>
              <SurgeBand />
              <Foot />
            </>
          )}
        </div>
      )}
      {moving && <MoveFromList move={moving} onClose={() => setMoving(null)} />}
      {asked?.live && (
        <Reckoning number={asked.ticket.number} clock={asked.live.clock} onClose={() => setAsked(null)} />
      )}
      <CellEditor editing={editing} onClose={() => setEditing(null)} onMove={moveTo} />
    </div>
  );
}
