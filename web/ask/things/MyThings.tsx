import { Button, Group, Textarea } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { Link } from 'react-router';
import type { OwnThing } from '../../../contract/estate';
import { call } from '../../api/call';
import { useNow } from '../../api/clock';
import { api } from '../../api/endpoints';
import { useRenew } from '../../api/queries';
import { LentUntil } from '../../estate/untils';
import { useRenewThings } from '../../estate/useThings';
import '../../messages/estateWords';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import { Waiting } from '../../ui/Waiting';
import home from '../home/Home.module.css';
import classes from './MyThings.module.css';

type Say = 'have' | 'haveNot' | 'broken' | 'lost' | 'returned';

/** What I have, as Ask shows it. */
export const useMyThings = () =>
  useQuery({ queryKey: ['things', 'mine'], queryFn: () => call(api.estate.mine) });

function useSay(thing: OwnThing) {
  const { t } = useWords();
  const renewThings = useRenewThings();
  const renew = useRenew();
  return useMutation({
    mutationFn: ({ say, words = '' }: { say: Say; words?: string }) =>
      call(api.estate.say, { params: { id: thing.id }, body: { say, words }, key: nanoid() }),
    onSuccess: ({ number }) =>
      notifications.show({
        message: number === null ? t('estate/mine/noted') : t('estate/mine/sent', { number }),
      }),
    onSettled: () => {
      renew();
      void renewThings();
    },
  });
}

/** Whether one has what was handed over. */
export function AskedFor({ thing }: { thing: OwnThing }) {
  const { t } = useWords();
  const { mutate, isPending, error } = useSay(thing);
  return (
    <div className={classes.asked}>
      <strong>{t('estate/mine/asked', { name: thing.name })}</strong>
      <Group gap="lg">
        <Button disabled={isPending} onClick={() => mutate({ say: 'have' })}>
          {t('estate/mine/have')}
        </Button>
        <Button variant="default" disabled={isPending} onClick={() => mutate({ say: 'haveNot' })}>
          {t('estate/mine/haveNot')}
        </Button>
      </Group>
      <ProblemNote error={error} />
    </div>
  );
}

/** What happened to it, before it becomes a ticket. What was written stays where sending fails. */
function Report({ thing, say, onClose }: { thing: OwnThing; say: Say; onClose(): void }) {
  const { t } = useWords();
  const [words, setWords] = useState('');
  const { mutate, isPending, error } = useSay(thing);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        mutate({ say, words }, { onSuccess: onClose });
      }}
    >
      <Textarea
        {...{ autoFocus: true, autosize: true, minRows: 2, my: 'xs' }}
        label={t('estate/mine/words', { name: thing.name })}
        maxLength={2_000}
        value={words}
        onChange={({ target }) => setWords(target.value)}
      />
      <Group gap="lg">
        <Button type="submit" loading={isPending}>
          {t('estate/mine/send')}
        </Button>
        <Button variant="default" onClick={onClose}>
          {t('estate/mine/cancel')}
        </Button>
      </Group>
      <ProblemNote error={error} />
    </form>
  );
}

function Mine({ thing, now }: { thing: OwnThing; now: number }) {
  const { t, local } = useWords();
  const times = useTimes();
  const [report, setReport] = useState<Say | null>(null);
  const { mutate, isPending, error } = useSay(thing);
  const { name, kind, tag, model, claim, isAsked, openTickets, handedAt, state } = thing;
  const facts = [local(kind), model, tag, state !== 'inUse' && t(`estate/states/${state}`)];
  return (
    <li className={classes.thing}>
      <h2>{name}</h2>
      <p className={classes.quiet}>
        {facts.filter(Boolean).join(' · ')}
        {handedAt !== null && ` · ${t('estate/mine/since', { when: times.day(handedAt) })}`}
      </p>
      <LentUntil at={thing.lentUntil} now={now} />
      {openTickets.map(({ number, title }) => (
        <p key={number}>
          <Link to={`/ask/tickets/${number}`}>
            {t('estate/mine/open', { number })} <bdi>{title}</bdi>
          </Link>
        </p>
      ))}
      {claim && <p>{t(`estate/mine/claim/${claim}`)}</p>}
      {isAsked && <AskedFor thing={thing} />}
      {report ? (
        <Report {...{ thing, say: report }} onClose={() => setReport(null)} />
      ) : (
        !isAsked && (
          <Group gap="xs" mt={6}>
            <Button size="sm" variant="default" onClick={() => setReport('broken')}>
              {t('estate/mine/broken')}
            </Button>
            <Button size="sm" variant="default" onClick={() => setReport('lost')}>
              {t('estate/mine/lost')}
            </Button>
            <Button
              size="sm"
              variant="default"
              disabled={isPending || claim === 'returned'}
              onClick={() => mutate({ say: 'returned' })}
            >
              {t('estate/mine/returned')}
            </Button>
          </Group>
        )
      )}
      <ProblemNote error={error} />
    </li>
  );
}

/** What one has: each can be reported broken, lost or given back, in one step. */
export function MyThings() {
  const { t } = useWords();
  const now = useNow(60_000);
  const { data, error, refetch } = useMyThings();
  return (
    <div className={home.page}>
      <p>
        <Link to="/ask">← {t('areas/ask')}</Link>
      </p>
      <h1 className={home.title}>{t('estate/mine/title')}</h1>
      {error && !data && <ProblemNote error={error} onRetry={() => void refetch()} />}
      {!data && !error && <Waiting />}
      {data?.length === 0 && <p className={home.quiet}>{t('estate/mine/none')}</p>}
      <ul className={classes.list}>
        {data?.map((thing) => (
          <Mine key={thing.id} {...{ thing, now }} />
        ))}
      </ul>
    </div>
  );
}
