import { Button, Checkbox, Group } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { ChatWish } from '../../contract/chat';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { TimeInput } from '../ui/TimeInput';

const toClock = (minutes: number): string =>
  `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
const toMinutes = (clock: string): number => Number(clock.slice(0, 2)) * 60 + Number(clock.slice(3, 5));
const NIGHT = { from: 22 * 60, to: 7 * 60 };

function WishForm({ wish }: { wish: ChatWish }) {
  const { t } = useWords();
  const client = useQueryClient();
  const [wanted, setWanted] = useState(wish);
  const save = useMutation({
    mutationFn: () => call(api.chat.setWish, { body: wanted }),
    onSuccess: () => {
      notifications.show({ message: t('rooms/saved') });
      void client.invalidateQueries({ queryKey: ['session'] });
    },
  });
  return (
    <Group gap="md" mt="xs">
      <Checkbox
        label={t('rooms/wishChat')}
        checked={wanted.wantsChat}
        onChange={({ target }) => setWanted({ ...wanted, wantsChat: target.checked })}
      />
      <Checkbox
        label={t('rooms/wishMail')}
        checked={wanted.wantsMail}
        onChange={({ target }) => setWanted({ ...wanted, wantsMail: target.checked })}
      />
      <Checkbox
        label={t('rooms/quiet')}
        checked={wanted.quiet !== null}
        onChange={({ target }) => setWanted({ ...wanted, quiet: target.checked ? NIGHT : null })}
      />
      {wanted.quiet &&
        (['from', 'to'] as const).map((edge) => (
          <TimeInput
            clearable={false}
            key={edge}
            size="xs"
            aria-label={t(`rooms/${edge}`)}
            value={toClock(wanted.quiet![edge])}
            onChange={(time) =>
              time && setWanted({ ...wanted, quiet: { ...wanted.quiet!, [edge]: toMinutes(time) } })
            }
          />
        ))}
      <Button size="compact-sm" loading={save.isPending} onClick={() => save.mutate()}>
        {t('common/save')}
      </Button>
      <ProblemNote error={save.error} />
    </Group>
  );
}

/** By which doors one hears of one's tickets, and when not. */
export function Wish() {
  const { t } = useWords();
  const { data } = useQuery({ queryKey: ['chatWish'], queryFn: () => call(api.chat.wish) });
  return (
    <details>
      <summary>{t('rooms/wish')}</summary>
      {data && <WishForm key={JSON.stringify(data)} wish={data} />}
    </details>
  );
}
