import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { api } from '../api/endpoints';
import type { MoveInput, MoveName } from '../../core/tickets';
import { call } from '../api/call';
import { useRenew } from '../api/queries';
import { useWords } from '../messages/useWords';
import { showUndo } from './showUndo';

export type Movable = { number: number; version: number };
export type MoveCall = {
  name: MoveName;
  by: 'requester' | 'agent';
  input: MoveInput;
  version: number;
  key: string;
};

/** Moves of the team that can be taken back for as long as the word of them stands. */
const UNDONE = new Set<MoveName>(['take', 'hold', 'resume', 'finish', 'give']);

/** Makes moves on a ticket; says so when done. */
export function useMove(ticket: Movable, onDone: () => void = () => undefined) {
  const { t } = useWords();
  const renew = useRenew();
  return useMutation({
    mutationFn: ({ name, by, input, version, key }: MoveCall) =>
      call(api.tickets.move, { params: { number: ticket.number }, body: { name, by, input, version }, key }),
    onSuccess: ({ version }, { name, by }) => {
      const { number } = ticket;
      const message = t(`moves/done/${name}`, { number });
      if (by === 'agent' && UNDONE.has(name))
        showUndo(message, t('common/undo'), () =>
          call(api.tickets.undo, { params: { number }, body: { version }, key: nanoid() }).then(() =>
            renew(number),
          ),
        );
      else notifications.show({ message });
      onDone();
    },
    onSettled: () => renew(ticket.number),
  });
}

export function newMove(
  ticket: Movable,
  name: MoveName,
  by: MoveCall['by'],
  input: MoveInput = {},
): MoveCall {
  return { name, by, input, version: ticket.version, key: nanoid() };
}
