import { Group, NativeSelect } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { ALERTS, CHAT_PRESENCES } from '../../../contract/talkNames';
import type { ChatAgent } from '../../../contract/conversations';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';

const MOST_AT_ONCE = 6;

/** Whether one takes conversations, apart from tickets, how many, and how one hears of them. */
export function AgentSettings({ agent }: { agent: ChatAgent }) {
  const { t } = useWords();
  const client = useQueryClient();
  const set = useMutation({
    mutationFn: (change: Partial<ChatAgent>) =>
      call(api.conversations.setAgent, { body: { ...agent, ...change } }),
    onSettled: () => client.invalidateQueries({ queryKey: ['conversations'] }),
  });
  const choose = (name: string, values: readonly string[]) =>
    values.map((value) => ({ value, label: t(`talk/desk/${name}/${value}`) }));
  return (
    <>
      <Group gap="sm" align="flex-end">
        <NativeSelect
          size="xs"
          label={t('talk/desk/presence')}
          data={choose('presences', CHAT_PRESENCES)}
          value={agent.presence}
          onChange={({ target }) => set.mutate({ presence: target.value as ChatAgent['presence'] })}
        />
        <NativeSelect
          size="xs"
          label={t('talk/desk/capacity')}
          data={Array.from({ length: MOST_AT_ONCE }, (_, i) => String(i + 1))}
          value={String(agent.capacity)}
          onChange={({ target }) => set.mutate({ capacity: Number(target.value) })}
        />
        <NativeSelect
          size="xs"
          label={t('talk/desk/alert')}
          data={choose('alerts', ALERTS)}
          value={agent.alert}
          onChange={({ target }) => set.mutate({ alert: target.value as ChatAgent['alert'] })}
        />
      </Group>
      <ProblemNote error={set.error} />
    </>
  );
}
