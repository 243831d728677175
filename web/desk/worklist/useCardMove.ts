import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import type { ListRow } from '../../../contract/worklists';
import { getMoveFields, type MoveInput, type Priority } from '../../../core/tickets';
import { planCardMove, type BoardField } from '../../../core/worklist';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useRenew } from '../../api/queries';
import { newMove } from '../../ui/useMove';
import type { ListMove } from './MoveFromList';

/** Whether a move's form has something left to ask for. */
function asksMore(name: ListMove['name'], input: MoveInput): boolean {
  return getMoveFields(name, 'agent', input).some(
    ({ name: field, needed }) => needed && (input[field] === undefined || input[field] === ''),
  );
}

/** Brings cards to columns: at once, or after the form that it asks for. */
export function useCardMove(by: BoardField) {
  const renew = useRenew();
  const [asking, setAsking] = useState<ListMove | null>(null);
  const [raising, setRaising] = useState<{ row: ListRow; to: Priority } | null>(null);
  const run = useMutation({
    mutationFn: async ({ row, work }: { row: ListRow; work: () => Promise<unknown> }) => {
      await work();
      return row;
    },
    onSettled: (_, __, { row }) => renew(row.number),
  });
  const plan = (row: ListRow, to: string | null) =>
    row.step
      ? null
      : planCardMove({ ...row, assigneeId: row.assignee?.id ?? null, teamId: row.team.id }, by, to);
  function place(row: ListRow, to: string | null): void {
    const move = plan(row, to);
    if (!move) return;
    const { number, version } = row;
    if (move.kind === 'fact' && move.fact === 'priority') setRaising({ row, to: move.value as Priority });
    else if (move.kind === 'fact')
      run.mutate({
        row,
        work: () =>
          call(api.tickets.change, {
            params: { number },
            body: { version, progressId: move.value },
            key: nanoid(),
          }),
      });
    else if (asksMore(move.name, move.input)) setAsking({ row, name: move.name, input: move.input });
    else {
      const { key, ...body } = newMove(row, move.name, 'agent', move.input);
      run.mutate({
        row,
        work: () => call(api.tickets.move, { params: { number }, body: body, key }),
      });
    }
  }
  return {
    mayPlace: (row: ListRow, to: string | null) => plan(row, to) !== null,
    place,
    asking,
    raising,
    error: run.error,
    close: () => {
      setAsking(null);
      setRaising(null);
    },
  };
}
