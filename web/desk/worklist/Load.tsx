import { DndContext, useDroppable, type DragEndEvent, pointerWithin } from '@dnd-kit/core';
import { useState } from 'react';
import type { AnswerOf } from '../../../contract/endpoint';
import type { ListRow } from '../../../contract/worklists';
import type { api } from '../../api/endpoints';
import { useNow } from '../../api/clock';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import { Waiting } from '../../ui/Waiting';
import { carriedBy, NOBODYS } from '../../../core/worklist';
import { Card } from './Card';
import { MoveFromList } from './MoveFromList';
import { useCardMove } from './useCardMove';
import { useCardSensors } from './useCardSensors';
import type { SeenList } from './useList';
import { useLoad } from './useListFigures';
import { useListRows } from './useListRows';
import { useLiveRows } from './useLiveRows';
import { rowIdOf, useRowWords } from './useRowWords';
import { narrow } from './where';
import classes from './Board.module.css';

type Person = AnswerOf<typeof api.worklists.load>['people'][number];
type Moves = ReturnType<typeof useCardMove>;

const STATES = ['inWork', 'received', 'held'] as const;
const LEAST_SCALE = 10;

/** Someone's work, card by card, to be dragged to someone else. */
function Work({
  list,
  person,
  people,
  search,
  moves,
}: {
  list: SeenList;
  person: Person;
  people: Person[];
  search: string;
  moves: Moves;
}) {
  const { t } = useWords();
  const id = person.person?.id ?? null;
  // All that they carry, as it is counted; what nobody has is of the list.
  const { query, rows } = useListRows(
    id === null
      ? { ...list, groupBy: null }
      : { ...list, id: 'everything', own: null, where: null, groupBy: null },
    { where: id === null ? narrow(list.where, NOBODYS) : carriedBy([id]) },
  );
  const { toLive } = useLiveRows(rows);
  const words = useRowWords();
  if (query.isPending) return <Waiting />;
  const places = people
    .filter((other) => other !== person)
    .map((other) => ({ value: other.person?.id ?? '', label: other.person?.name ?? t('lists/nobody') }));
  return (
    <div className={classes.cards}>
      {rows.map((row) => (
        <Card
          key={rowIdOf(row)}
          {...toLive(row)}
          words={words}
          to={`/desk/${list.id}/${row.number}${search}`}
          facts={['requester', 'priority', 'left']}
          places={places.filter(({ value }) => moves.mayPlace(row, value || null))}
          onPlace={(value) => moves.place(row, value || null)}
        />
      ))}
    </div>
  );
}

function Line(props: {
  list: SeenList;
  person: Person;
  people: Person[];
  scale: number;
  search: string;
  moves: Moves;
}) {
  const { person, scale } = props;
  const { t } = useWords();
  const [isOpen, setOpen] = useState(false);
  const id = person.person?.id ?? '';
  const { setNodeRef, isOver } = useDroppable({ id, data: { value: person.person?.id ?? null } });
  const { states, capacity, dues, past, later, isAway } = person;
  const sum = STATES.reduce((count, state) => count + (states[state] ?? 0), 0);
  const said = STATES.filter((state) => states[state])
    .map((state) => `${t(`states/${state}`)} ${states[state]}`)
    .join(', ');
  return (
    <div ref={setNodeRef} className={classes.person} data-person={id} data-over={isOver || undefined}>
      <div className={classes.line}>
        <span>
          <button type="button" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
            <bdi>{person.person?.name ?? t('lists/nobody')}</bdi>
          </button>
          <small>
            {isAway
              ? t('lists/away')
              : capacity === null
                ? t('lists/carries', { count: sum })
                : t('lists/carriesOf', { count: sum, capacity })}
          </small>
        </span>
        <span className={classes.bar} role="img" aria-label={said || t('lists/nothingCarried')} title={said}>
          {STATES.map((state) => (
            <span
              key={state}
              data-state={state}
              style={{ width: `${(100 * (states[state] ?? 0)) / scale}%` }}
              hidden={!states[state]}
            />
          ))}
          {capacity !== null && (
            <span className={classes.capacity} style={{ left: `${(100 * capacity) / scale}%` }} />
          )}
        </span>
        <span className={classes.days}>
          <span data-past={past > 0 || undefined}>{past || '·'}</span>
          {dues.map((count, i) => (
            <span key={i}>{count || '·'}</span>
          ))}
          <span>{later || '·'}</span>
        </span>
      </div>
      {isOpen && <Work {...props} />}
    </div>
  );
}

/** A list as load: what each person carries by state against what they can, and when it falls due. */
export function Load({ list, search }: { list: SeenList; search: string }) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const { data, error } = useLoad(list);
  const moves = useCardMove('assigneeId');
  const sensors = useCardSensors();
  if (!data) return error ? <ProblemNote error={error} /> : <Waiting />;
  const { people, days } = data;
  const carried = people.map(({ states }) => STATES.reduce((sum, state) => sum + (states[state] ?? 0), 0));
  const scale = Math.max(LEAST_SCALE, ...carried, ...people.map(({ capacity }) => capacity ?? 0)) * 1.05;
  function end({ active, over }: DragEndEvent): void {
    const row = active.data.current?.ticket as ListRow | undefined;
    if (row && over) moves.place(row, (over.data.current?.value as string | null) ?? null);
  }
  return (
    <DndContext sensors={sensors} collisionDetection={pointerWithin} onDragEnd={end}>
      <ProblemNote error={moves.error} />
      <p className={classes.counts}>{t('lists/loadCounts')}</p>
      <div className={classes.person}>
        <div className={classes.line}>
          <span>{t('lists/who')}</span>
          <small>{t('lists/loadBar')}</small>
          <span className={classes.days}>
            <span>{t('lists/pastShort')}</span>
            {days.map((day) => (
              <span key={day}>
                {day <= now && now < day + 86_400_000
                  ? t('lists/todayShort')
                  : times.weekday(day + 43_200_000)}
              </span>
            ))}
            <span>{t('lists/laterShort')}</span>
          </span>
        </div>
      </div>
      {people.map((person) => (
        <Line key={person.person?.id ?? ''} {...{ list, person, people, scale, search, moves }} />
      ))}
      {moves.asking && <MoveFromList move={moves.asking} onClose={moves.close} />}
    </DndContext>
  );
}
