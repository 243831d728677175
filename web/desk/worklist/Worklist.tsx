import { Modal } from '@mantine/core';
import { useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import '../../messages/listsWords';
import type { ListRow } from '../../../contract/worklists';
import type { MoveInput, MoveName } from '../../../core/tickets';
import { ApiProblem } from '../../api/call';
import { useNow } from '../../api/clock';
import { useMe } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { Lost } from '../../ui/Lost';
import { MoveForm } from '../../ui/MoveForm';
import { ProblemNote } from '../../ui/ProblemNote';
import { Waiting } from '../../ui/Waiting';
import { DeskTicket } from '../ticket/DeskTicket';
import { Board } from './Board';
import { DueCalendar } from './DueCalendar';
import { Foot } from './Foot';
import { Head } from './Head';
import { Load } from './Load';
import { Shares } from './Shares';
import { TimeView } from './TimeView';
import { useShares } from './useListFigures';
import { useList, type SeenChange, type SeenList } from './useList';
import classes from './Worklist.module.css';

/** A move that is being made from a list, with what is known of its form already. */
export type ListMove = { row: ListRow; name: MoveName; input?: MoveInput };

/** A move from the list: its form, over the list. */
export function MoveFromList({ move, onClose }: { move: ListMove; onClose(): void }) {
  const { t } = useWords();
  const { number, version, title, requester } = move.row;
  return (
    <Modal
      opened
      onClose={onClose}
      title={`${t(`moves/${move.name}`).replace(' …', '')}: ${number}, ${title}`}
    >
      <MoveForm
        ticket={{ number, version }}
        name={move.name}
        by="agent"
        {...(move.input && { known: move.input })}
        requesterName={requester.name}
        onClose={onClose}
      />
    </Modal>
  );
}

type SeenProps = { list: SeenList; search: string; onSee(change: SeenChange): void };

/** A list that is not seen in time: its heading, and the way of seeing below it. */
function OtherView({ list, search, onSee }: SeenProps) {
  const now = useNow(60_000);
  const { data } = useShares(list, ['state']);
  const count = data?.fields[0]?.values.reduce((sum, value) => sum + value.count, 0);
  const View = { board: Board, load: Load, calendar: DueCalendar, shares: Shares, time: Board }[list.view];
  return (
    <div className={classes.list}>
      <div className={classes.head} data-plain>
        <Head
          {...{ list, now, search, onSee, chosen: null, isNarrow: false, waiting: 0 }}
          total={count === undefined ? undefined : { count, isMore: data?.isPart ?? false }}
          onSettle={() => undefined}
          onChoose={() => undefined}
        />
      </div>
      <div className={classes.view}>
        <View list={list} search={search} onSee={onSee} />
      </div>
      <Foot isPlain />
    </div>
  );
}

/** The Desk: a worklist, seen in one of its ways, and beside it (or over it) the ticket that is open. */
export function Worklist() {
  const { list: id = '', number } = useParams();
  const [params] = useSearchParams();
  const me = useMe();
  const { list, isPending, error, see, search } = useList(id);
  const [, setShown] = useState(0);
  if (!me.areas.includes('desk')) return <Lost />;
  if (isPending) return <Waiting />;
  if (error)
    return error instanceof ApiProblem ? (
      <ProblemNote error={error} onRetry={() => setShown((n) => n + 1)} />
    ) : (
      <Lost />
    );
  if (!list) return <Lost />;
  const openNumber = number === undefined ? null : Number(number);
  const isFull = openNumber !== null && params.has('full');
  const isTime = list.view === 'time' || openNumber !== null;
  return (
    <div
      className={classes.desk}
      data-open={openNumber !== null || undefined}
      data-full={isFull || undefined}
    >
      {isTime ? (
        <TimeView key={id} {...{ list, openNumber, isFull, search }} onSee={see} />
      ) : (
        <OtherView key={id} {...{ list, search }} onSee={see} />
      )}
      {openNumber !== null && (
        <DeskTicket key={openNumber} number={openNumber} list={id} search={search} isFull={isFull} />
      )}
    </div>
  );
}
