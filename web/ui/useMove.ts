import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { api } from '../api/endpoints';
import type { MoveInput, MoveName } from '../../core/tickets';
import { call } from '../api/call';
import { useRenew } from '../api/queries';
import { useWords } from '../messages/useWords';
import { showUndo } from './showUndo';

/** `teamId` lets taking be undone: the ticket goes back to its team. */
export type Movable = { number: number; version: number; teamId?: string };
export type MoveCall = {
  name: MoveName;
  by: 'requester' | 'agent';
  input: MoveInput;
  version: number;
  key: string;
};

function giveBack({ number, version, teamId }: Required<Movable>): Promise<unknown> {
  const body = { name: 'give' as const, by: 'agent' as const, input: { teamId, assigneeId: null }, version };
  return call(api.tickets.move, { params: { number }, body });
}

/** Makes moves on a ticket; says so when done. */
export function useMove(ticket: Movable, onDone: () => void = () => undefined) {
  const { t } = useWords();
  const renew = useRenew();
  return useMutation({
    mutationFn: ({ name, by, input, version, key }: MoveCall) =>
      call(api.tickets.move, { params: { number: ticket.number }, body: { name, by, input, version }, key }),
    onSuccess: ({ version }, { name }) => {
      const message = t(`moves/done/${name}`, { number: ticket.number });
      const { number, teamId } = ticket;
      if (name === 'take' && teamId)
        showUndo(message, t('common/undo'), () =>
          giveBack({ number, version, teamId }).then(() => renew(number)),
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
