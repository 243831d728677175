import { Modal } from '@mantine/core';
import type { ListRow } from '../../../contract/worklists';
import type { MoveInput, MoveName } from '../../../core/tickets';
import { useWords } from '../../messages/useWords';
import { MoveForm } from '../../ui/MoveForm';

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
        takesFocus
        {...(move.input && { known: move.input })}
        requesterName={requester.name}
        onClose={onClose}
      />
    </Modal>
  );
}
