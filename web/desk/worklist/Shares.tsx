import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { Waiting } from '../../ui/Waiting';
import { useFieldWords } from '../../ui/useFieldWords';
import type { SeenChange, SeenList } from './useList';
import { useShares } from './useListFigures';
import { narrow } from './where';
import classes from './Board.module.css';

const BY = ['state', 'serviceId', 'priority', 'via', 'teamId', 'assigneeId', 'siteId', 'kind'];
const SHOWN = 10;

/** A list as shares: how much of it is what. A click narrows the list to it. */
export function Shares({ list, onSee }: { list: SeenList; onSee(change: SeenChange): void }) {
  const { t, local } = useWords();
  const { fieldName, valueWords } = useFieldWords();
  const { data, error } = useShares(list, BY);
  if (!data) return error ? <ProblemNote error={error} /> : <Waiting />;
  return (
    <>
      {data.isPart && <p className={classes.swipe}>{t('lists/isPart')}</p>}
      <div className={classes.shares}>
        {data.fields.map(({ field, values }) => {
          const sum = values.reduce((total, { count }) => total + count, 0);
          const most = Math.max(1, ...values.map(({ count }) => count));
          return (
            <section key={field} data-field={field}>
              <h2>{fieldName(field)}</h2>
              {values.slice(0, SHOWN).map(({ value, name, count }) => {
                const label = name ? local(name) : valueWords(field, value ?? '');
                const share = Math.round((100 * count) / sum);
                return (
                  <button
                    key={value ?? ''}
                    type="button"
                    className={classes.share}
                    data-value={value ?? ''}
                    title={t('lists/shareOf', { what: label, count, share })}
                    onClick={() => onSee({ where: narrow(list.where, { field, op: 'in', value: [value] }) })}
                  >
                    <span>
                      <bdi>{label}</bdi>
                    </span>
                    <i style={{ width: `${(100 * count) / most}%` }} />
                    <span>
                      {count} · {share} %
                    </span>
                  </button>
                );
              })}
              {values.length > SHOWN && <small>{t('lists/andMore', { count: values.length - SHOWN })}</small>}
            </section>
          );
        })}
      </div>
    </>
  );
}
