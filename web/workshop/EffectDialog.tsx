import { Button, Group, Modal, Text } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { Effect } from '../../contract/calendars';
import { useNow } from '../api/clock';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { useTimes } from '../ui/useTimes';
import { Waiting } from '../ui/Waiting';
import classes from './Workshop.module.css';

type Props = { read(): Promise<Effect>; isSaving: boolean; error: unknown; onSave(): void; onClose(): void };

/** What a change moves, before it is saved. */
export function EffectDialog({ read, isSaving, error, onSave, onClose }: Props) {
  const { t } = useWords();
  const query = useQuery({ queryKey: ['effect'], queryFn: read, gcTime: 0, staleTime: 0, retry: false });
  return (
    <Modal opened onClose={onClose} title={t('workshop/effect/title')} size="lg">
      {query.isFetching && (
        <>
          <Text>{t('workshop/effect/counting')}</Text>
          <Waiting />
        </>
      )}
      {query.error && <ProblemNote error={query.error} />}
      {query.data && !query.isFetching && <EffectWords effect={query.data} />}
      <ProblemNote error={error} />
      <Group justify="flex-end" mt="md">
        <Button variant="default" onClick={onClose}>
          {t('common/cancel')}
        </Button>
        <Button disabled={query.isFetching || query.isError} loading={isSaving} onClick={onSave}>
          {t('workshop/saveNow')}
        </Button>
      </Group>
    </Modal>
  );
}

function EffectWords({ effect }: { effect: Effect }) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const { tickets, moved, late, noLongerLate, becomeLate } = effect;
  if (tickets === 0) return <p>{t('workshop/effect/noneReadable')}</p>;
  if (moved === 0 && late === 0)
    return (
      <p>
        {t('workshop/effect/nothing', { tickets })} {t('workshop/effect/readable')}
      </p>
    );
  return (
    <>
      <p>
        {t('workshop/effect/moved', { count: moved, tickets })} {late === 0 && t('workshop/effect/noneLate')}{' '}
        {noLongerLate > 0 && t('workshop/effect/noLongerLate', { count: noLongerLate })}{' '}
        {t('workshop/effect/readable')}
      </p>
      {late > 0 && (
        <>
          <p className={classes.error}>{t('workshop/effect/late', { count: late })}</p>
          <ul className={classes.list}>
            {becomeLate.map(({ number, title, target, dueBefore, dueAfter }) => (
              <li key={`${number}${target}`}>
                <Link to={`/desk/everything/${number}`}>
                  {number} · <bdi>{title}</bdi>
                  <small>
                    {target}
                    {dueBefore !== null &&
                      ` · ${t('workshop/effect/was', { when: times.when(dueBefore, now) })}`}
                    {dueAfter !== null &&
                      ` · ${t('workshop/effect/willBe', { when: times.when(dueAfter, now) })}`}
                  </small>
                </Link>
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}
