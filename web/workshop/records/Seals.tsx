import { Button, Group, Text } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import type { SealView } from '../../../contract/records';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import classes from '../Workshop.module.css';
import { useSeals } from './useRecords';

const SHOWN = 7;

function Seal({ seal }: { seal: SealView }) {
  const { t } = useWords();
  const times = useTimes();
  const check = useMutation({ mutationFn: () => call(api.records.check, { params: { id: seal.id } }) });
  const when = times.full(seal.at);
  const found = check.data;
  return (
    <li className={classes.item}>
      <Group gap="sm">
        <span>{t('records/seals/one', { when, count: seal.entries })}</span>
        <code title={seal.hash}>{seal.hash.slice(0, 12)}…</code>
        <Button
          {...{ size: 'compact-sm', variant: 'default', loading: check.isPending }}
          aria-label={t('records/seals/checkThis', { when })}
          onClick={() => check.mutate()}
        >
          {t('records/seals/check')}
        </Button>
        {found && (
          <Text
            size="sm"
            role="status"
            fw={600}
            c={found.holds && found.isLinked ? 'var(--ink)' : 'var(--brick)'}
          >
            {t(`records/seals/${found.holds ? (found.isLinked ? 'holds' : 'unlinked') : 'broken'}`)}
          </Text>
        )}
      </Group>
      <ProblemNote error={check.error} />
    </li>
  );
}

/** The seals of the last days, and whether what they cover is still what it was. */
export function Seals() {
  const { t } = useWords();
  const { data, error, refetch } = useSeals();
  return (
    <details>
      <summary>{t('records/seals/title')}</summary>
      <Text size="sm" c="var(--muted)">
        {t('records/seals/lead')}
      </Text>
      <ProblemNote error={error} onRetry={() => void refetch()} />
      {data?.length === 0 && <p>{t('records/seals/none')}</p>}
      <ul className={classes.items}>
        {data?.slice(0, SHOWN).map((seal) => (
          <Seal key={seal.id} seal={seal} />
        ))}
      </ul>
    </details>
  );
}
