import { Button } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { Entry, Ticket } from '../../../contract/tickets';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import '../../messages/rulesWords';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';

/** Whether what an entry changed can be put back: a rule did it, and nothing of it was changed since. */
export function isPutBack(entry: Entry, { entries, rights, number }: Ticket): boolean {
  const fields = Object.keys(entry.changes);
  if (entry.rule === null || entry.from !== null || fields.length === 0 || !rights.includes('work'))
    return false;
  return !entries.some(
    ({ id, from, changes }) =>
      id > entry.id && (from ?? number) === number && fields.some((field) => changes[field]),
  );
}

/** Takes back what a rule changed, like a colleague’s change. */
export function PutBack({ entry, number }: { entry: Entry; number: number }) {
  const { t } = useWords();
  const client = useQueryClient();
  const undo = useMutation({
    mutationFn: () => call(api.rules.undo, { params: { number, entryId: entry.id }, body: {} }),
    onSuccess: () => notifications.show({ message: t('rules/onTicket/undone') }),
    onSettled: () => client.invalidateQueries({ queryKey: ['ticket', number] }),
  });
  return (
    <>
      {' '}
      <Button size="compact-xs" variant="subtle" loading={undo.isPending} onClick={() => undo.mutate()}>
        {t('rules/onTicket/undo')}
      </Button>
      <ProblemNote error={undo.error} />
    </>
  );
}
