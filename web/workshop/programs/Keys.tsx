import { Button, Group, Table, Text } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import type { ApiKeyView, ProgramView } from '../../../contract/programs';
import { isLive, mayAddKey } from '../../../core/programs';
import { call } from '../../api/call';
import { useNow } from '../../api/clock';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import classes from '../Workshop.module.css';
import { ShownOnce } from './ShownOnce';
import { useRenewPrograms } from './usePrograms';

function Key({ apiKey, onRevoke }: { apiKey: ApiKeyView; onRevoke(): void }) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const { id, createdAt, endsAt, revokedAt, lastUsedAt, lastUsedFrom } = apiKey;
  const when = (at: number): string => times.when(at, now);
  const works = isLive(apiKey, now);
  const end =
    revokedAt !== null
      ? t('programs/keyRevoked', { when: when(revokedAt) })
      : endsAt !== null && t(works ? 'programs/ends' : 'programs/keyEnded', { when: when(endsAt) });
  return (
    <Table.Tr data-off={!works}>
      <Table.Td>
        <code>listo_{id}_…</code>
      </Table.Td>
      <Table.Td>{t('programs/keyFrom', { when: when(createdAt) })}</Table.Td>
      <Table.Td>
        {lastUsedAt === null
          ? t('programs/neverUsed')
          : t('programs/keyUsed', { when: when(lastUsedAt), address: lastUsedFrom })}
      </Table.Td>
      <Table.Td>{end}</Table.Td>
      <Table.Td>
        {works && (
          <Button
            size="compact-sm"
            variant="default"
            aria-label={t('programs/revokeThis', { id })}
            onClick={onRevoke}
          >
            {t('programs/revoke')}
          </Button>
        )}
      </Table.Td>
    </Table.Tr>
  );
}

/** The keys of a program: made, shown once, taken back. */
export function Keys({ program: { id: programId, keys } }: { program: ProgramView }) {
  const { t } = useWords();
  const renew = useRenewPrograms();
  const now = useNow(60_000);
  const [secret, setSecret] = useState<string | null>(null);
  const make = useMutation({
    mutationFn: () => call(api.programs.createKey, { params: { id: programId }, body: { endsAt: null } }),
    onSuccess: ({ key }) => setSecret(key),
    onSettled: renew,
  });
  const revoke = useMutation({
    mutationFn: (keyId: string) => call(api.programs.revokeKey, { params: { id: programId, keyId } }),
    onSuccess: (_, keyId) => notifications.show({ message: t('programs/revoked', { id: keyId }) }),
    onSettled: renew,
  });
  return (
    <section className={classes.section} aria-labelledby="program-keys">
      <h2 id="program-keys">{t('programs/keys')}</h2>
      <Text size="sm" c="var(--muted)">
        {t(keys.length === 0 ? 'programs/noKeys' : 'programs/keysHelp')}
      </Text>
      {keys.length > 0 && (
        <Table.ScrollContainer minWidth={600}>
          <Table>
            <Table.Tbody>
              {keys.map((key) => (
                <Key key={key.id} apiKey={key} onRevoke={() => revoke.mutate(key.id)} />
              ))}
            </Table.Tbody>
          </Table>
        </Table.ScrollContainer>
      )}
      <Group mt="sm">
        <Button
          size="xs"
          variant={keys.length === 0 ? 'filled' : 'default'}
          disabled={!mayAddKey(keys, now)}
          loading={make.isPending}
          onClick={() => make.mutate()}
        >
          {t('programs/newKey')}
        </Button>
      </Group>
      <ProblemNote error={make.error ?? revoke.error} />
      {secret !== null && <ShownOnce secret={secret} onClose={() => setSecret(null)} />}
    </section>
  );
}
