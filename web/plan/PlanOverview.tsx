import type { PlanView } from '../../contract/plans';
import { useWords } from '../messages/useWords';
import classes from './Plan.module.css';
import '../messages/planWords';

const isOver = (state: string): boolean => state === 'done' || state === 'skipped';

/** A plan as its requester reads it: each part of it, how far it is, and who is at it. */
export function PlanOverview({ plan }: { plan: PlanView }) {
  const { t, local } = useWords();
  return (
    <section className={classes.overview} aria-label={t('plan/title')}>
      {plan.legs.map(({ id, name, steps }) => {
        const wanted = steps.filter(({ state, isWanted }) => isWanted && state !== 'skipped');
        const done = wanted.filter(({ state }) => state === 'done');
        const active = wanted.filter(({ state }) => state === 'active');
        const isLegOver = steps.every(({ state }) => isOver(state));
        const state = isLegOver ? 'done' : active.length > 0 ? 'active' : 'waiting';
        const places = active.flatMap(({ ranking }) => (ranking ? t('plan/ranked', ranking) : []));
        const owners = [...new Set(active.flatMap(({ team }) => (team ? local(team.name) : [])))].join(', ');
        return (
          <div key={id} className={classes.step} data-state={state}>
            <span className={classes.mark} />
            <b>{local(name)}</b>
            <small>
              {isLegOver
                ? t('plan/state/done')
                : active.length > 0
                  ? [t('plan/legDone', { done: done.length, count: wanted.length }), owners, ...places]
                      .filter(Boolean)
                      .join(' · ')
                  : t('plan/state/waiting')}
            </small>
          </div>
        );
      })}
    </section>
  );
}
