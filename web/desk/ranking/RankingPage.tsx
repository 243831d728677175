import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { useParams } from 'react-router';
import type { RankedRequest } from '../../../contract/plans';
import { call } from '../../api/call';
import { useChanges } from '../../api/changes';
import { api } from '../../api/endpoints';
import { useMe, useRenew } from '../../api/queries';
import '../../messages/planWords';
import { useWords } from '../../messages/useWords';
import { Lost } from '../../ui/Lost';
import { ProblemNote } from '../../ui/ProblemNote';
import { Waiting } from '../../ui/Waiting';
import { SortableItem, SortableList } from '../../ui/Sortable';
import { RankedRow, type Said } from './RankedRow';
import classes from './Ranking.module.css';

const idOf = ({ number, stepId }: RankedRequest): string => `${number} ${stepId}`;

/** The large requests of a team that wait for their turn: a lead puts them in order, and lets them go ahead. */
export function RankingPage() {
  const { team = '' } = useParams();
  const { t, local } = useWords();
  const me = useMe();
  const renew = useRenew();
  const client = useQueryClient();
  const queryKey = ['ranking', team];
  const ranking = useQuery({ queryKey, queryFn: () => call(api.plans.ranking, { params: { id: team } }) });
  const [open, setOpen] = useState<{ id: string; goesAhead: boolean } | null>(null);
  useChanges(() => ranking.refetch());
  const rank = useMutation({
    mutationFn: ({ request, ...said }: Said & { request: RankedRequest; place?: number }) =>
      call(api.plans.rank, {
        params: { id: team },
        body: { number: request.number, stepId: request.stepId, version: request.version, ...said },
        key: nanoid(),
      }),
    onSettled: (_, __, { request }) => {
      renew(request.number);
      return client.invalidateQueries({ queryKey });
    },
  });
  if (!me.areas.includes('desk')) return <Lost />;
  if (ranking.error)
    return (
      <div className={classes.page}>
        <ProblemNote error={ranking.error} onRetry={() => void ranking.refetch()} />
      </div>
    );
  if (!ranking.data) return <Waiting />;
  const { requests, mayRank } = ranking.data;
  const ids = requests.map(idOf);
  const requestOf = (id: string): RankedRequest => requests[ids.indexOf(id)]!;
  const order = (sorted: string[], moved: string): void => {
    client.setQueryData(queryKey, { ...ranking.data, requests: sorted.map(requestOf) });
    const place = sorted.indexOf(moved) + 1;
    rank.mutate({ request: requestOf(moved), place, words: '', goesAhead: false });
  };
  return (
    <div className={classes.page}>
      <h1>{t('plan/ranking/title', { team: local(ranking.data.team.name) })}</h1>
      <p className={classes.lead}>
        {requests.length === 0
          ? t('plan/ranking/none')
          : [t('plan/ranking/waiting', { count: requests.length }), mayRank && t('plan/ranking/how')]
              .filter(Boolean)
              .join(' ')}
      </p>
      {rank.error && <ProblemNote error={rank.error} />}
      <SortableList ids={ids} onOrder={order}>
        <ol className={classes.list}>
          {requests.map((request, i) => {
            const id = idOf(request);
            return (
              <SortableItem
                key={id}
                id={id}
                className={classes.row}
                label={t('plan/ranking/move', { title: request.title })}
                isFixed={!mayRank || requests.length < 2}
              >
                {(grip) => (
                  <RankedRow
                    {...{ request, grip, mayRank }}
                    place={i + 1}
                    open={open?.id === id ? { goesAhead: open.goesAhead } : null}
                    isBusy={rank.isPending}
                    onOpen={(next) => setOpen(next && { id, ...next })}
                    onSay={(said, onDone) =>
                      rank.mutate(
                        { request, ...said },
                        {
                          onSuccess: () => {
                            onDone();
                            setOpen(null);
                          },
                        },
                      )
                    }
                  />
                )}
              </SortableItem>
            );
          })}
        </ol>
      </SortableList>
    </div>
  );
}
