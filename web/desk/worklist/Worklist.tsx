import { Button, Modal } from '@mantine/core';
import { useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { WORKLISTS, type WorklistName } from '../../../contract/names';
import type { MoveName } from '../../../core/tickets';
import { useNow } from '../../api/clock';
import { useCalendars } from '../../api/calendars';
import { useMe, useWorklist } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { getTightest, readLive, type Tone } from '../../ui/clocks';
import { useLastChange } from '../../ui/Frame';
import { Lost } from '../../ui/Lost';
import { MoveForm } from '../../ui/MoveForm';
import { ProblemNote } from '../../ui/ProblemNote';
import { useKeys } from '../../ui/useKeys';
import { newMove, useMove } from '../../ui/useMove';
import { Waiting } from '../../ui/Waiting';
import { DeskTicket } from '../ticket/DeskTicket';
import { Dayline, type Stretch } from './Dayline';
import { Foot } from './Foot';
import { Head } from './Head';
import { NarrowRow, Row, rowIdOf, type LiveRow } from './Row';
import { liveOfStep } from './liveOfStep';
import { useAxis } from './useAxis';
import classes from './Worklist.module.css';

const TICK_MS = 15_000;

/** The rows of a worklist with their clocks as they stand now; renewed at the instant the next one falls due. */
function useLiveRows(name: WorklistName) {
  const query = useWorklist(name);
  const me = useMe();
  const { local } = useWords();
  const calendars = useCalendars();
  const tickets = query.data?.pages.flatMap((page) => page.rows) ?? [];
  const dues = tickets.map(({ clocks, step }) => step?.neededBy ?? getTightest(clocks)?.dueAt ?? Infinity);
  const [before, setBefore] = useState(0);
  const next = Math.min(...dues.filter((due) => due >= before));
  const now = useNow(TICK_MS, Number.isFinite(next) ? next : null);
  if (now > next && before <= next) setBefore(now);
  const rows: LiveRow[] = tickets.map((ticket) => {
    if (ticket.step)
      return {
        ticket,
        live: calendars
          ? liveOfStep(ticket.step, local(ticket.step.name), calendars[me.calendarId], now)
          : null,
      };
    const clock = getTightest(ticket.clocks);
    return {
      ticket,
      live: clock && calendars ? readLive(clock, calendars[clock.calendarId ?? ''], now) : null,
    };
  });
  return { query, calendars, rows, now };
}

/** When a row falls due next: by its running clock, or by what was set by hand if that is sooner. */
function getNextDue({ ticket, live }: LiveRow): { at: number; tone: Tone } | null {
  const clock = live?.clock.state === 'running' ? live.clock.dueAt : null;
  const byHand =
    ticket.due && (ticket.due.standing === 'toCome' || ticket.due.standing === 'past') ? ticket.due : null;
  if (byHand && (clock === null || byHand.at < clock))
    return { at: byHand.at, tone: byHand.standing === 'past' ? 'past' : 'plenty' };
  return clock === null ? null : { at: clock, tone: live!.tone };
}

function within(stretch: Stretch | null): (row: LiveRow) => boolean {
  return (row) => {
    const due = getNextDue(row);
    return !stretch || (due !== null && due.at >= stretch.from && due.at <= stretch.to);
  };
}

/** A move from the list, by key: made at once, or after its form. */
function MoveFromList({ row, name, onClose }: { row: LiveRow; name: MoveName; onClose(): void }) {
  const { t } = useWords();
  const { number, version, title, requester } = row.ticket;
  return (
    <Modal opened onClose={onClose} title={`${t(`moves/${name}`).replace(' …', '')}: ${number}, ${title}`}>
      <MoveForm
        ticket={{ number, version }}
        name={name}
        by="agent"
        requesterName={requester.name}
        onClose={onClose}
      />
    </Modal>
  );
}

function List({
  name,
  openNumber,
  isFull,
}: {
  name: WorklistName;
  openNumber: number | null;
  isFull: boolean;
}) {
  const { t } = useWords();
  const me = useMe();
  const navigate = useNavigate();
  const { query, calendars, rows: all, now } = useLiveRows(name);
  const last = useLastChange();
  const axis = useAxis(calendars?.[me.calendarId], now);
  const [chosen, setChosen] = useState<Stretch | null>(null);
  const [pointed, setPointed] = useState<string | null>(null);
  const [moving, setMoving] = useState<MoveName | null>(null);
  const rows = all.filter(within(chosen));
  const isOpen = openNumber !== null;
  const selected =
    rows.find(({ ticket }) => (isOpen ? ticket.number === openNumber : rowIdOf(ticket) === pointed)) ?? null;
  const addressOf = (number: number): string => `/desk/${name}/${number}`;
  const take = useMove(
    selected ? { ...selected.ticket, teamId: selected.ticket.team.id } : { number: 0, version: 0 },
  );

  function step(by: 1 | -1): void {
    const at = selected ? rows.indexOf(selected) + by : 0;
    const row = rows[Math.min(rows.length - 1, Math.max(0, at))];
    if (!row) return;
    if (isOpen) void navigate(addressOf(row.ticket.number));
    else {
      const rowId = rowIdOf(row.ticket);
      setPointed(rowId);
      document.querySelector<HTMLElement>(`[data-row="${rowId}"]`)?.focus();
    }
  }
  const onSelected = (act: () => void) => (selected && !isOpen ? act : undefined);
  // Steps are moved where their ticket is open.
  const onSelectedTicket = (act: () => void) => (selected?.ticket.step ? undefined : onSelected(act));
  useKeys({
    arrowdown: isFull ? undefined : () => step(1),
    arrowup: isFull ? undefined : () => step(-1),
    enter: onSelected(() => void navigate(addressOf(selected!.ticket.number))),
    t: onSelectedTicket(() => take.mutate(newMove(selected!.ticket, 'take', 'agent'))),
    h: onSelectedTicket(() => setMoving('hold')),
    d: onSelectedTicket(() => setMoving('finish')),
  });

  const dues = all.flatMap((row) => {
    const due = getNextDue(row);
    return due === null ? [] : [{ ...due, number: row.ticket.number, title: row.ticket.title }];
  });
  const shared = ({ ticket }: LiveRow) => ({
    to: addressOf(ticket.number),
    isSelected: isOpen
      ? ticket.number === openNumber
      : selected !== null && rowIdOf(selected.ticket) === rowIdOf(ticket),
    onPoint: () => setPointed(rowIdOf(ticket)),
    isChanged: last?.number === ticket.number && last.actorId !== me.id,
  });
  return (
    <div className={classes.list}>
      <div className={classes.head}>
        <Head
          {...{ name, chosen, now, isNarrow: isOpen, total: query.data?.pages[0]?.total }}
          onChoose={setChosen}
        />
        {!isOpen && axis && (
          <div className={classes.wide}>
            <Dayline {...{ axis, now, dues, chosen }} onChoose={setChosen} />
          </div>
        )}
      </div>
      {query.isPending && <Waiting />}
      {query.error && !query.data && <ProblemNote error={query.error} onRetry={() => void query.refetch()} />}
      {query.data && rows.length === 0 && <p className={classes.empty}>{t('desk/empty')}</p>}
      <ul className={classes.rows}>
        {rows.map((row) => (
          <li key={rowIdOf(row.ticket)}>
            {isOpen || !axis ? (
              <NarrowRow {...row} {...shared(row)} />
            ) : (
              <Row {...row} {...shared(row)} axis={axis} now={now} />
            )}
          </li>
        ))}
      </ul>
      {query.hasNextPage && (
        <Button
          m="sm"
          variant="default"
          style={{ alignSelf: 'flex-start' }}
          loading={query.isFetchingNextPage}
          onClick={() => void query.fetchNextPage()}
        >
          {t('desk/more')}
        </Button>
      )}
      {!isOpen && <Foot />}
      {moving && selected && <MoveFromList row={selected} name={moving} onClose={() => setMoving(null)} />}
    </div>
  );
}

/** The Desk: a worklist on its axis, and beside it (or over it) the ticket that is open. */
export function Worklist() {
  const { list = '', number } = useParams();
  const [search] = useSearchParams();
  const me = useMe();
  const name = WORKLISTS.find((each) => each === list);
  if (!name || !me.areas.includes('desk')) return <Lost />;
  const openNumber = number === undefined ? null : Number(number);
  const isFull = openNumber !== null && search.has('full');
  return (
    <div
      className={classes.desk}
      data-open={openNumber !== null || undefined}
      data-full={isFull || undefined}
    >
      <List key={name} {...{ name, openNumber, isFull }} />
      {openNumber !== null && <DeskTicket key={openNumber} number={openNumber} list={name} isFull={isFull} />}
    </div>
  );
}
