import { Button, Group, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import type { WorkCalendar } from '../../contract/works';
import { call } from '../api/call';
import { useNow } from '../api/clock';
import { api } from '../api/endpoints';
import { ThingSelect } from '../estate/ThingSelect';
import estate from '../estate/Estate.module.css';
import { useWords } from '../messages/useWords';
import { InstantInput } from '../ui/InstantInput';
import { ProblemNote } from '../ui/ProblemNote';
import { useProblems } from '../ui/useProblems';
import { useTimes } from '../ui/useTimes';
import { useRenewWorks } from './useWorks';

type Named = { id: string; name: string };

function NewFreeze() {
  const { t, language } = useWords();
  const renew = useRenewWorks();
  const toProblems = useProblems();
  const [name, setName] = useState('');
  const [fromAt, setFromAt] = useState<number | null>(null);
  const [toAt, setToAt] = useState<number | null>(null);
  const [things, setThings] = useState<Named[]>([]);
  const make = useMutation({
    mutationFn: () =>
      call(api.works.createFreeze, {
        key: nanoid(),
        body: {
          name: { en: '', pt: '', [language]: name },
          ...{ fromAt: fromAt!, toAt: toAt! },
          thingIds: things.length === 0 ? null : things.map(({ id }) => id),
        },
      }),
    onSuccess: () => {
      setName('');
      setThings([]);
    },
    onSettled: renew,
  });
  const faults = toProblems(make.error);
  return (
    <Group align="end" gap="sm">
      <TextInput
        label={t('works/freeze/name')}
        value={name}
        error={faults.name}
        onChange={({ target }) => setName(target.value)}
      />
      <InstantInput
        label={t('works/fields/fromAt')}
        value={fromAt}
        error={faults.fromAt}
        onChange={setFromAt}
      />
      <InstantInput label={t('works/fields/toAt')} value={toAt} error={faults.toAt} onChange={setToAt} />
      <ThingSelect
        label={
          things.length === 0 ? t('works/freeze/everything') : things.map((thing) => thing.name).join(', ')
        }
        placeholder={t('works/fields/addThing')}
        except={things.map(({ id }) => id)}
        onPick={(thing) => setThings([...things, thing])}
      />
      <Button
        variant="default"
        disabled={fromAt === null || toAt === null}
        loading={make.isPending}
        onClick={() => make.mutate()}
      >
        {t('works/freeze/new')}
      </Button>
      {Object.keys(faults).length === 0 && <ProblemNote error={make.error} />}
    </Group>
  );
}

/** Stretches that are kept free of changes. */
export function Freezes({ calendar }: { calendar: WorkCalendar }) {
  const { t, local } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const renew = useRenewWorks();
  const remove = useMutation({
    mutationFn: (id: string) => call(api.works.removeFreeze, { params: { id } }),
    onSuccess: () => notifications.show({ message: t('works/freeze/removed') }),
    onSettled: renew,
  });
  const { freezes, things, maySetFreezes } = calendar;
  const namesOf = (ids: string[] | null): string =>
    ids === null
      ? t('works/freeze/everything')
      : ids.flatMap((id) => things.find((thing) => thing.id === id)?.name ?? []).join(', ');
  return (
    <section className={estate.section}>
      <h2>{t('works/freezes')}</h2>
      {freezes.length === 0 && <p className={estate.quiet}>{t('works/freeze/none')}</p>}
      <ul className={estate.list}>
        {freezes.map(({ id, name, fromAt, toAt, thingIds }) => (
          <li key={id}>
            <bdi>{local(name)}</bdi>
            <small>
              {times.when(fromAt, now)} – {times.when(toAt, now)} · {namesOf(thingIds)}
            </small>{' '}
            {maySetFreezes && (
              <Button
                size="compact-xs"
                variant="subtle"
                aria-label={`${t('works/freeze/remove')}: ${local(name)}`}
                onClick={() => remove.mutate(id)}
              >
                ×
              </Button>
            )}
          </li>
        ))}
      </ul>
      {maySetFreezes && <NewFreeze />}
      <ProblemNote error={remove.error} />
    </section>
  );
}
