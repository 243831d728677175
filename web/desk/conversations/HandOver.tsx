import { Button, Modal, NativeSelect, Stack, Textarea } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useMe, useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';

type Props = { id: string; isInvite: boolean; onClose(): void };

/** Gives the conversation to another agent or to a line, with a word on why; or asks a colleague in. */
export function HandOver({ id, isInvite, onClose }: Props) {
  const { t, local } = useWords();
  const me = useMe();
  const client = useQueryClient();
  const navigate = useNavigate();
  const { data: teams = [] } = useTeams();
  const { data: lines = [] } = useQuery({
    queryKey: ['lines'],
    queryFn: () => call(api.conversations.lines),
  });
  const [to, setTo] = useState('');
  const [why, setWhy] = useState('');
  const people = new Map(
    teams
      .flatMap(({ members }) => members)
      .filter((member) => member.id !== me.id)
      .map(({ id: personId, name }) => [personId, name]),
  );
  const [kind, chosen] = to.split(':') as [string, string?];
  const send = useMutation({
    mutationFn: (): Promise<unknown> =>
      isInvite
        ? call(api.conversations.invite, { params: { id }, body: { personId: chosen! }, key: nanoid() })
        : call(api.conversations.handOver, {
            params: { id },
            body: {
              agentId: kind === 'agent' ? chosen! : null,
              lineId: kind === 'line' ? chosen! : null,
              why,
            },
            key: nanoid(),
          }),
    onSuccess() {
      onClose();
      if (!isInvite) {
        const line = lines.find((each) => each.id === chosen);
        const name = kind === 'line' ? (line ? local(line.name) : '') : (people.get(chosen!) ?? '');
        notifications.show({
          message: t(kind === 'line' ? 'talk/desk/handedToLine' : 'talk/desk/handedToAgent', { name }),
        });
        // It may be another team's from now on, which alone reads it.
        if (kind === 'line') void navigate('/desk/conversations');
      }
    },
    onSettled: async () => {
      await client.invalidateQueries({ queryKey: ['conversations'] });
      if (isInvite || kind === 'agent') await client.invalidateQueries({ queryKey: ['conversation', id] });
    },
  });
  return (
    <Modal opened onClose={onClose} title={t(isInvite ? 'talk/desk/invite' : 'talk/desk/handTitle')}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          send.mutate();
        }}
      >
        <Stack gap="sm">
          <NativeSelect
            label={t(isInvite ? 'talk/desk/toAgent' : 'talk/desk/toWhom')}
            value={to}
            data={[
              { value: '', label: '–' },
              ...(isInvite
                ? []
                : [
                    {
                      group: t('talk/desk/toLine'),
                      items: lines.map((line) => ({ value: `line:${line.id}`, label: local(line.name) })),
                    },
                  ]),
              {
                group: t('talk/desk/toAgent'),
                items: [...people]
                  .sort((a, b) => a[1].localeCompare(b[1]))
                  .map(([personId, name]) => ({ value: `agent:${personId}`, label: name })),
              },
            ]}
            onChange={({ target }) => setTo(target.value)}
          />
          {!isInvite && (
            <Textarea
              autosize
              label={t('talk/desk/why')}
              value={why}
              onChange={({ target }) => setWhy(target.value)}
            />
          )}
          <ProblemNote error={send.error} />
          <Button
            type="submit"
            loading={send.isPending}
            disabled={to === '' || (!isInvite && why.trim() === '')}
          >
            {t('talk/send')}
          </Button>
        </Stack>
      </form>
    </Modal>
  );
}
