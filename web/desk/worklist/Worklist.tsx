import { useParams, useSearchParams } from 'react-router';
import '../../messages/listsWords';
import { useNow } from '../../api/clock';
import { useMe } from '../../api/queries';
import { Lost } from '../../ui/Lost';
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

const VIEWS = { board: Board, load: Load, calendar: DueCalendar, shares: Shares };

type SeenProps = { list: SeenList; search: string; onSee(change: SeenChange): void };

/** A list that is not seen in time: its heading, and the way of seeing below it. */
function OtherView({ list, search, onSee }: SeenProps) {
  const now = useNow(60_000);
  const { data } = useShares(list, ['state']);
  const count = data?.fields[0]?.values.reduce((sum, value) => sum + value.count, 0);
  const View = VIEWS[list.view as keyof typeof VIEWS];
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
  const { list, isPending, error, see, search, retry } = useList(id);
  if (!me.areas.includes('desk')) return <Lost />;
  if (isPending) return <Waiting />;
  if (error) return <ProblemNote error={error} onRetry={retry} />;
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
