import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { lazy, Suspense, useState } from 'react';
import { Link } from 'react-router';
import type { Ticket } from '../../../contract/tickets';
import { findPlace } from '../../../core/procedures';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useRenew } from '../../api/queries';
import '../../messages/proceduresWords';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import classes from './Procedure.module.css';

const RichText = lazy(() => import('../../words/RichText'));

/** How this ticket is done, open at the step where it is; steps are ticked off. */
export function Procedure({ ticket }: { ticket: Ticket }) {
  const { t, local } = useWords();
  const times = useTimes();
  const client = useQueryClient();
  const renew = useRenew();
  const { number } = ticket;
  const queryKey = ['procedure', number, ticket.version, ticket.team.id];
  const { data } = useQuery({
    queryKey,
    queryFn: () => call(api.procedures.forTicket, { params: { number } }),
    placeholderData: (before) => before,
  });
  const tick = useMutation({
    mutationFn: ({ id, isDone }: { id: string; isDone: boolean }) =>
      call(api.procedures.tick, { params: { number, id }, body: { isDone } }),
    onSettled: async () => {
      renew(number);
      await client.invalidateQueries({ queryKey: ['procedure', number] });
    },
  });
  const [opened, setOpened] = useState<string | null | undefined>();
  if (!data?.procedure) return null;
  const { procedure, ticks } = data;
  const { name, overview, steps, mayEdit, id: procedureId } = procedure;
  const place = findPlace(
    steps.map(({ id }) => id),
    ticks.map(({ stepId }) => stepId),
  );
  const isOpen = opened === undefined ? place.at : opened;
  return (
    <section className={classes.procedure} aria-label={t('procedures/title')}>
      <h2>
        {t('procedures/title')}
        <small>
          {place.at === null
            ? t('procedures/allDone', { count: steps.length })
            : t('procedures/done', { done: place.done, count: steps.length })}
        </small>
      </h2>
      <p>
        <b>{local(name)}.</b> {local(overview)}{' '}
        {mayEdit && <Link to={`/workshop/procedures/${procedureId}`}>{t('procedures/change')}</Link>}
      </p>
      <ol>
        {steps.map((step) => {
          const done = ticks.find(({ stepId }) => stepId === step.id);
          const isDone = tick.isPending && tick.variables.id === step.id ? tick.variables.isDone : !!done;
          return (
            <li key={step.id} data-at={place.at === step.id || undefined} data-done={isDone || undefined}>
              <input
                type="checkbox"
                checked={isDone}
                aria-label={t('procedures/tick', { name: local(step.name) })}
                onChange={({ target }) => tick.mutate({ id: step.id, isDone: target.checked })}
              />
              <button
                type="button"
                aria-expanded={isOpen === step.id}
                onClick={() => setOpened(isOpen === step.id ? null : step.id)}
              >
                {local(step.name)}
              </button>
              <small>
                {done
                  ? t('procedures/by', { name: done.by?.name ?? '', when: times.hour(done.at) })
                  : local(step.who)}
              </small>
              {isOpen === step.id && (
                <div className={classes.exactly}>
                  <Suspense fallback={local(step.instruction)}>
                    <RichText text={local(step.instruction)} base="/desk/everything" />
                  </Suspense>
                </div>
              )}
            </li>
          );
        })}
      </ol>
      <ProblemNote error={tick.error} />
    </section>
  );
}
