import { DndContext, pointerWithin, useDroppable, type DragEndEvent } from '@dnd-kit/core';
import { Button, Modal, NumberInput, Popover } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { ListRow } from '../../../contract/worklists';
import type { Condition } from '../../../core/conditions';
import { PRIORITIES } from '../../../core/tickets';
import type { BoardField } from '../../../core/worklist';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useMe, useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { Waiting } from '../../ui/Waiting';
import { Card } from './Card';
import { PriorityEditor } from './CellEditor';
import { MoveFromList } from './MoveFromList';
import { useCardMove } from './useCardMove';
import { useCardSensors } from './useCardSensors';
import { useFieldWords } from '../../ui/useFieldWords';
import type { SeenList } from './useList';
import { useShares } from './useListFigures';
import { useListRows } from './useListRows';
import { useLiveRows } from './useLiveRows';
import { rowIdOf, useRowWords } from './useRowWords';
import { narrow } from './where';
import classes from './Board.module.css';

type Column = { value: string | null; label: string; count: number };
const NOBODY = '';

/** Values that have a column also while nothing is in it. */
function useFixed(by: BoardField): (string | null)[] {
  const me = useMe();
  const { data: teams = [] } = useTeams();
  const own = teams.filter(({ members }) => members.some(({ id }) => id === me.id));
  switch (by) {
    case 'state':
      return ['received', 'inWork', 'held', 'done'];
    case 'priority':
      return [...PRIORITIES];
    case 'progressId':
      return [null, ...own.flatMap(({ progressLabels }) => progressLabels.map(({ id }) => id))];
    case 'assigneeId':
      return [null, me.id];
    case 'heldFor':
      return [null, 'requester', 'supplier', 'date', 'ticket'];
    case 'teamId':
      return own.map(({ id }) => id);
  }
}

function useColumns(list: SeenList): { columns: Column[] | null; error: unknown } {
  const { boardBy } = list;
  const { data, error } = useShares(list, [boardBy]);
  const fixed = useFixed(boardBy);
  const { valueWords } = useFieldWords();
  if (!data) return { columns: null, error };
  const counted = data.fields[0]!.values;
  const values = [...new Set([...fixed, ...counted.map(({ value }) => value)])];
  const columns = values.map((value) => ({
    value,
    label: valueWords(boardBy, value ?? NOBODY),
    count: counted.find((each) => each.value === value)?.count ?? 0,
  }));
  return { columns, error };
}

/** How many cards a column should have at most; part of the list, for who may change it. */
function Limit({ list, value }: { list: SeenList; value: string }) {
  const { t } = useWords();
  const client = useQueryClient();
  const { own } = list;
  const [limit, setLimit] = useState<number | null>(own?.definition.board.limits[value] ?? null);
  const save = useMutation({
    mutationFn: () => {
      const { [value]: _, ...others } = own!.definition.board.limits;
      const limits = limit === null ? others : { ...others, [value]: limit };
      const definition = { ...own!.definition, board: { ...own!.definition.board, limits } };
      const { name, teamId, version } = own!;
      return call(api.worklists.update, {
        params: { id: own!.id },
        body: { name, teamId, version, definition },
      });
    },
    onSettled: () => client.invalidateQueries({ queryKey: ['ownLists'] }),
  });
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <NumberInput
        size="xs"
        label={t('lists/limit')}
        description={t('lists/limitLead')}
        min={1}
        max={999}
        value={limit ?? ''}
        onChange={(next) => setLimit(typeof next === 'number' ? next : null)}
      />
      <Button size="xs" mt={6} type="submit" loading={save.isPending}>
        {t('common/save')}
      </Button>
      <ProblemNote error={save.error} />
    </form>
  );
}

function Count({ list, column }: { list: SeenList; column: Column }) {
  const { t } = useWords();
  const { own, definition } = list;
  const limit = definition.board.limits[column.value ?? NOBODY];
  const isOver = limit !== undefined && column.count > limit;
  const words =
    limit === undefined
      ? String(column.count)
      : t(isOver ? 'lists/over' : 'lists/ofLimit', { count: column.count, limit });
  if (!own?.mayEdit) return <span data-over={isOver || undefined}>{words}</span>;
  return (
    <Popover withArrow width={220} trapFocus>
      <Popover.Target>
        <Button size="compact-xs" variant="subtle" aria-label={t('lists/limitOf', { column: column.label })}>
          <span data-over={isOver || undefined}>{words}</span>
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <Limit list={list} value={column.value ?? NOBODY} />
      </Popover.Dropdown>
    </Popover>
  );
}

type ColumnProps = {
  list: SeenList;
  column: Column;
  columns: Column[];
  search: string;
  dragged: ListRow | null;
  moves: ReturnType<typeof useCardMove>;
};

function BoardColumn({ list, column, columns, search, dragged, moves }: ColumnProps) {
  const { t } = useWords();
  const is: Condition = { field: list.boardBy, op: 'in', value: [column.value] };
  const { query, rows } = useListRows({ ...list, groupBy: null }, { where: narrow(list.where, is) });
  const { toLive } = useLiveRows(rows);
  const words = useRowWords();
  const { setNodeRef, isOver } = useDroppable({ id: column.value ?? NOBODY, data: { value: column.value } });
  const isRefused = dragged !== null && !moves.mayPlace(dragged, column.value);
  return (
    <section
      ref={setNodeRef}
      className={classes.column}
      data-column={column.value ?? NOBODY}
      data-over={(isOver && !isRefused) || undefined}
      data-refused={isRefused || undefined}
      aria-label={column.label}
    >
      <h2>
        {column.label} <Count list={list} column={column} />
      </h2>
      {query.isPending && <Waiting />}
      {query.error && <ProblemNote error={query.error} onRetry={() => void query.refetch()} />}
      {rows.map((row) => (
        <Card
          key={rowIdOf(row)}
          {...toLive(row)}
          words={words}
          to={`/desk/${list.id}/${row.number}${search}`}
          facts={list.definition.board.facts}
          places={columns
            .filter(({ value }) => value !== column.value && moves.mayPlace(row, value))
            .map(({ value, label }) => ({ value: value ?? NOBODY, label }))}
          onPlace={(value) => moves.place(row, value || null)}
        />
      ))}
      {query.hasNextPage && (
        <Button
          className={classes.more ?? ''}
          size="compact-xs"
          variant="default"
          loading={query.isFetchingNextPage}
          onClick={() => void query.fetchNextPage()}
        >
          {t('desk/more')}
        </Button>
      )}
    </section>
  );
}

/** A list as a board: a column a value, a card a piece of work. Dragging a card makes the move that brings it there. */
export function Board({ list, search }: { list: SeenList; search: string }) {
  const { t } = useWords();
  const { columns, error } = useColumns(list);
  const moves = useCardMove(list.boardBy);
  const [dragged, setDragged] = useState<ListRow | null>(null);
  const sensors = useCardSensors();
  function end({ active, over }: DragEndEvent): void {
    setDragged(null);
    const row = active.data.current?.ticket as ListRow | undefined;
    if (row && over) moves.place(row, (over.data.current?.value as string | null) ?? null);
  }
  if (!columns) return error ? <ProblemNote error={error} /> : <Waiting />;
  return (
    <>
      <ProblemNote error={moves.error} />
      <DndContext
        sensors={sensors}
        collisionDetection={pointerWithin}
        onDragStart={({ active }) => setDragged((active.data.current?.ticket as ListRow | undefined) ?? null)}
        onDragEnd={end}
        onDragCancel={() => setDragged(null)}
      >
        <div className={classes.board} tabIndex={0} role="region" aria-label={t('lists/views/board')}>
          {columns.map((column) => (
            <BoardColumn
              key={`${list.boardBy}:${column.value ?? NOBODY}`}
              {...{ list, column, columns, search, dragged, moves }}
            />
          ))}
        </div>
      </DndContext>
      {moves.asking && <MoveFromList move={moves.asking} onClose={moves.close} />}
      {moves.raising && (
        <Modal opened onClose={moves.close} title={`${moves.raising.row.number}, ${moves.raising.row.title}`}>
          <PriorityEditor row={moves.raising.row} to={moves.raising.to} onClose={moves.close} />
        </Modal>
      )}
    </>
  );
}
