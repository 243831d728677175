import { Button, Group, NumberInput } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Ticket } from '../../../contract/tickets';
import type { Like, UnderAs } from '../../../contract/together';
import { isOpen } from '../../../core/tickets';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useRenew } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useProblems } from '../../ui/useProblems';
import classes from './DeskTicket.module.css';

const params = ({ number }: Ticket) => ({ params: { number } });

function useTogether(ticket: Ticket) {
  const renew = useRenew();
  const { number } = ticket;
  const query = useQuery({
    queryKey: ['ticket', number, 'together'],
    queryFn: () => call(api.together.get, params(ticket)),
  });
  const put = useMutation({
    mutationFn: (body: { under: number; as: UnderAs }) =>
      call(api.together.put, { ...params(ticket), body, key: nanoid() }),
    onSettled: (_, __, { under }) => {
      renew(number);
      renew(under);
    },
  });
  const apart = useMutation({
    mutationFn: (which: number) => call(api.together.takeApart, { params: { number: which } }),
    onSettled: (_, __, which) => {
      renew(number);
      renew(which);
    },
  });
  return { query, put, apart };
}

/** Why another ticket is alike, in words. */
export function useWhyAlike(): (like: Like) => string {
  const { t } = useWords();
  return ({ sharedWords, samePlace, sameService }) =>
    [
      t('together/words', { words: sharedWords.slice(0, 4).join(', ') }),
      ...(samePlace ? [t('together/samePlace')] : []),
      ...(sameService ? [t('together/sameService')] : []),
    ].join(' · ');
}

function Similar({
  ticket,
  list,
  onPut,
}: {
  ticket: Ticket;
  list: string;
  onPut(under: number, as: UnderAs): void;
}) {
  const { t } = useWords();
  const why = useWhyAlike();
  const { data, error } = useQuery({
    queryKey: ['ticket', ticket.number, 'similar'],
    staleTime: 60_000,
    queryFn: () => call(api.together.similar, params(ticket)),
  });
  if (error) return <ProblemNote error={error} />;
  if (!data || data.length === 0)
    return <small className={classes.quiet}>{t('together/nothingAlike')}</small>;
  return (
    <ul className={classes.likes}>
      {data.map((like) => (
        <li key={like.number} data-like={like.number}>
          <Link to={`/desk/${list}/${like.number}`}>
            {like.number} <bdi>{like.title}</bdi>
          </Link>
          <small>
            {t(`states/${like.state}`)} · {why(like)}
          </small>
          {like.solution && (
            <small>
              {t('together/solvedBy')} <bdi>{like.solution}</bdi>
            </small>
          )}
          {isOpen(like.state) && isOpen(ticket.state) && ticket.rights.includes('work') && (
            <button type="button" className={classes.link} onClick={() => onPut(like.number, 'same')}>
              <small>{t('together/same', { number: like.number })}</small>
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}

/** What stands together with a ticket: its cause, those under it, and what happened before. */
export function Together({ ticket, list }: { ticket: Ticket; list: string }) {
  const { t } = useWords();
  const { query, put, apart } = useTogether(ticket);
  const [under, setUnder] = useState<number | null>(null);
  const problems = useProblems()(put.error);
  const mayWork = ticket.rights.includes('work');
  const { data } = query;
  const isFree = mayWork && isOpen(ticket.state) && data?.under === null;
  return (
    <section aria-label={t('together/title')}>
      <h2>{t('together/title')}</h2>
      {data?.under && (
        <p className={classes.under}>
          {t(`together/under/${data.under.as}`)}{' '}
          <Link to={`/desk/${list}/${data.under.number}`}>
            {data.under.number} <bdi>{data.under.title}</bdi>
          </Link>{' '}
          {mayWork && (
            <Button size="compact-xs" variant="default" onClick={() => apart.mutate(ticket.number)}>
              {t('together/apart')}
            </Button>
          )}
        </p>
      )}
      {data && data.below.length > 0 && (
        <>
          <small className={classes.quiet}>{t('together/below', { count: data.below.length })}</small>
          <ul className={classes.likes}>
            {data.below.map(({ number, title, as }) => (
              <li key={number}>
                <Link to={`/desk/${list}/${number}`}>
                  {number} <bdi>{title}</bdi>
                </Link>
                <small>{t(`together/as/${as}`)}</small>
              </li>
            ))}
          </ul>
        </>
      )}
      <Similar ticket={ticket} list={list} onPut={(number, as) => put.mutate({ under: number, as })} />
      {isFree && (
        <Group gap={6} align="flex-end" mt={6}>
          <NumberInput
            size="xs"
            hideControls
            w="100%"
            label={t('together/putUnder')}
            value={under ?? ''}
            error={problems.under}
            onChange={(value) => setUnder(typeof value === 'number' ? value : null)}
          />
          {(['cause', 'same'] as const).map((as) => (
            <Button
              key={as}
              size="xs"
              variant="default"
              disabled={!under}
              onClick={() => put.mutate({ under: under!, as })}
            >
              {t(`together/as/${as}`)}
            </Button>
          ))}
        </Group>
      )}
      {put.error && !problems.under && <ProblemNote error={put.error} />}
      <ProblemNote error={apart.error} />
    </section>
  );
}
