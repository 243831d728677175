import { Button, Group, Popover, Portal, Select, Stack, TextInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import type { ListRow } from '../../../contract/worklists';
import { PRIORITIES, type MoveName, type Priority } from '../../../core/tickets';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useRenew, useTicket } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { ReceiverSelect } from '../../ui/ReceiverSelect';
import { useProblems } from '../../ui/useProblems';
import { newMove, useMove } from '../../ui/useMove';
import { Waiting } from '../../ui/Waiting';
import { DueByHand } from '../ticket/DueByHand';
import type { EditableColumn } from './Row';

export type Editing = { row: ListRow; column: EditableColumn; at: DOMRect };
type Props = { row: ListRow; onClose(): void; onMove(name: MoveName): void };
type Valued = Pick<ListRow, 'number' | 'version' | 'priority' | 'team' | 'assignee'>;
type ValueProps = { row: Valued; onClose(): void };

/** Gives a ticket to someone of its team, to nobody of it, or to another team. */
export function WhoEditor({ row, onClose }: ValueProps) {
  const { t } = useWords();
  const move = useMove({ number: row.number, version: row.version }, onClose);
  return (
    <>
      <ReceiverSelect
        size="xs"
        label={t('lists/giveTo')}
        isInDialog
        mayBeNobody
        peopleOf={[row.team.id]}
        value={{ teamId: row.team.id, assigneeId: row.assignee?.id ?? null }}
        onChange={(receiver) => move.mutate(newMove(row, 'give', 'agent', receiver))}
      />
      <ProblemNote error={move.error} />
    </>
  );
}

function useFacts(row: Pick<ListRow, 'number' | 'version'>, onDone: () => void) {
  const renew = useRenew();
  return useMutation({
    mutationFn: (facts: object) =>
      call(api.tickets.change, {
        params: { number: row.number },
        body: { version: row.version, ...facts },
        key: nanoid(),
      }),
    onSuccess: onDone,
    onSettled: () => renew(row.number),
  });
}

/** A priority by hand, with why. */
export function PriorityEditor({ row, onClose, to = row.priority }: ValueProps & { to?: Priority }) {
  const { t } = useWords();
  const [priority, setPriority] = useState(to);
  const [priorityReason, setReason] = useState('');
  const change = useFacts(row, onClose);
  const problems = useProblems()(change.error);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        change.mutate({ priority, priorityReason });
      }}
    >
      <Stack gap={6}>
        <Select
          size="xs"
          label={t('conflict/fields/priority')}
          allowDeselect={false}
          comboboxProps={{ withinPortal: false }}
          data={[...PRIORITIES]}
          value={priority}
          onChange={(value) => value && setPriority(value)}
        />
        <TextInput
          data-autofocus
          size="xs"
          label={t('page/overrideReason')}
          value={priorityReason}
          error={problems.priorityReason}
          onChange={({ target }) => setReason(target.value)}
        />
        {!problems.priorityReason && <ProblemNote error={change.error} />}
        <Button size="xs" type="submit" loading={change.isPending}>
          {t('common/save')}
        </Button>
      </Stack>
    </form>
  );
}

function TitleEditor({ row, onClose }: Props) {
  const { t } = useWords();
  const [title, setTitle] = useState(row.title);
  const change = useFacts(row, onClose);
  const problems = useProblems()(change.error);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        change.mutate({ title });
      }}
    >
      <Group gap={6} align="flex-end" wrap="nowrap">
        <TextInput
          data-autofocus
          size="xs"
          style={{ flex: 1 }}
          label={t('lists/title')}
          value={title}
          error={problems.title}
          onChange={({ target }) => setTitle(target.value)}
        />
        <Button size="xs" type="submit" loading={change.isPending}>
          {t('common/save')}
        </Button>
      </Group>
      {!problems.title && <ProblemNote error={change.error} />}
    </form>
  );
}

/** The moves that the ticket allows now; those that ask for something open their form. */
function StateEditor({ row, onMove }: Props) {
  const { t } = useWords();
  const { data } = useTicket(row.number);
  if (!data) return <Waiting />;
  const moves = data.moves.filter(({ by }) => by === 'agent');
  if (moves.length === 0) return <p>{t('lists/noMoves')}</p>;
  return (
    <Stack gap={4}>
      {moves.map(({ name }) => (
        <Button key={name} size="xs" variant="default" onClick={() => onMove(name)}>
          {t(`moves/${name}`)}
        </Button>
      ))}
    </Stack>
  );
}

function DueEditor({ row }: Props) {
  const { data } = useTicket(row.number);
  return data ? <DueByHand ticket={data} /> : <Waiting />;
}

const EDITORS = {
  who: WhoEditor,
  priority: PriorityEditor,
  title: TitleEditor,
  state: StateEditor,
  due: DueEditor,
};

/** Changes one value where it stands in a list. */
export function CellEditor({
  editing,
  onClose,
  onMove,
}: {
  editing: Editing | null;
  onClose(): void;
  onMove(row: ListRow, name: MoveName): void;
}) {
  const { t } = useWords();
  if (!editing) return null;
  const { row, column, at } = editing;
  const Editor = EDITORS[column];
  return (
    <Portal>
      <Popover
        opened
        onChange={(isOpen) => !isOpen && onClose()}
        trapFocus
        withArrow
        width={280}
        position="bottom-start"
        returnFocus
      >
        <Popover.Target>
          <span
            aria-hidden
            style={{
              position: 'fixed',
              left: at.left,
              top: at.top,
              width: at.width,
              height: at.height,
              pointerEvents: 'none',
            }}
          />
        </Popover.Target>
        <Popover.Dropdown aria-label={`${row.number}: ${t(`lists/columns/${column}`)}`}>
          <Editor row={row} onClose={onClose} onMove={(name) => onMove(row, name)} />
        </Popover.Dropdown>
      </Popover>
    </Portal>
  );
}
