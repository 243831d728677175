import type { Thing, ThingHistory } from '../../contract/estate';
import { sayDay } from '../../core/forms';
import { useWords } from '../messages/useWords';
import { useMoney } from '../ui/useMoney';
import { useTimes } from '../ui/useTimes';
import classes from './Estate.module.css';
import { useKinds } from './useThings';

type Change = ThingHistory['changes'][number];

/** The value of a fact, as it is read. */
function useValueWords(): (field: string, value: unknown) => string {
  const { t, local, language } = useWords();
  const times = useTimes();
  const money = useMoney();
  const { data: kinds = [] } = useKinds();
  return (field, value) => {
    if (value === null || value === '' || value === undefined) return t('estate/nothing');
    if (typeof value === 'boolean') return t(value ? 'estate/yes' : 'estate/no');
    if (typeof value === 'object') return Object.values(value).map(String).join(', ');
    const words = typeof value === 'number' ? String(value) : (value as string);
    switch (field) {
      case 'state':
        return t(`estate/states/${words}`);
      case 'claim':
        return t(`estate/said/claims/${words}`);
      case 'cost':
        return money(Number(value));
      case 'boughtOn':
      case 'warrantyUntil':
        return sayDay(words, language);
      case 'lentUntil':
      case 'confirmedAt':
        return times.full(Number(value));
      case 'kindId': {
        const kind = kinds.find(({ id }) => id === value);
        return kind ? local(kind.name) : '…';
      }
      default:
        return words;
    }
  };
}

/** What an entry says in a few words, before what changed. */
function useSaid(): (entry: ThingHistory) => string {
  const { t } = useWords();
  return ({ type, act, claim, changes }) => {
    if (act) return t(`estate/acts/${act}`);
    if (claim) return t(`estate/said/claims/${claim}`);
    if (type === 'thingSaid' && changes.some(({ field }) => field === 'claim'))
      return t('estate/said/settled');
    return t(`estate/said/${type}`);
  };
}

/** All that happened to a thing, from what to what. */
export function History({ history }: Pick<Thing, 'history'>) {
  const { t } = useWords();
  const times = useTimes();
  const say = useSaid();
  const words = useValueWords();
  const change = ({ field, from, to }: Change): string =>
    t('estate/fromTo', {
      field: t(`estate/fields/${field}`),
      from: words(field, from),
      to: words(field, to),
    });
  return (
    <section className={classes.section} aria-labelledby="thing-history">
      <h2 id="thing-history">{t('estate/history')}</h2>
      {history.length === 0 && <p className={classes.quiet}>{t('estate/nothingYet')}</p>}
      <ul className={classes.list}>
        {history.map((entry, i) => (
          <li key={i}>
            {say(entry)}
            <small>{[entry.byName, times.full(entry.at)].filter(Boolean).join(' · ')}</small>
            {entry.changes.map((each) => (
              <div key={each.field} className={classes.quiet}>
                <bdi>{change(each)}</bdi>
              </div>
            ))}
          </li>
        ))}
      </ul>
    </section>
  );
}
