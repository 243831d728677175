import type { Reckoned as Known, WorkClash } from '../../contract/works';
import { useNow } from '../api/clock';
import '../messages/estateWords';
import '../messages/worksWords';
import { useWords } from '../messages/useWords';
import { useTimes } from '../ui/useTimes';
import classes from './Works.module.css';

/** So many are named; the rest is counted. */
const NAMED = 8;
const namesOf = (things: { name: string }[]): string => things.map(({ name }) => name).join(', ');

/** What is in the way of what, in a sentence. */
export function useClashWords(): (clash: WorkClash, own?: number | null, isOfAll?: boolean) => string {
  const { t, local } = useWords();
  return ({ kind, works, things, freeze }, own = null, isOfAll = false) => {
    const others = works.filter(({ number }) => number !== own && number !== 0);
    const named = others.map(({ number, title }) => `${number} ${title}`).join(', ');
    const words = { works: named, things: namesOf(things), freeze: freeze ? local(freeze.name) : '' };
    const said = kind === 'frozen' && things.length === 0 ? 'frozenAll' : kind;
    return t(isOfAll ? `works/clashesOfAll/${said}` : `works/clashes/${said}`, words);
  };
}

/** The clashes of a change, each struck and said in words. */
export function Clashes({
  clashes,
  own = null,
  isOfAll = false,
}: {
  clashes: WorkClash[];
  own?: number | null;
  isOfAll?: boolean;
}) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const wordsOf = useClashWords();
  if (clashes.length === 0) return <p className={classes.quiet}>{t('works/clashes/none')}</p>;
  return (
    <ul className={classes.clashes} aria-label={t('works/clashes/title')}>
      {clashes.map((clash, i) => (
        <li key={i} data-kind={clash.kind}>
          <bdi>{wordsOf(clash, own, isOfAll)}</bdi>{' '}
          <small>
            {times.when(clash.from, now)} – {times.when(clash.to, now)}
          </small>
        </li>
      ))}
    </ul>
  );
}

/** What is reckoned of a change: whom it reaches, how such changes went, what comes of both, and what it gets in the way of. */
export function Reckoned({
  known,
  own = null,
  hasStretch,
}: {
  known: Known;
  own?: number | null;
  hasStretch: boolean;
}) {
  const { t } = useWords();
  const { people, down, weakenedCount, past, impact, likelihood, risk, retired } = known;
  const percent = (share: number): number => Math.round(share * 100);
  const level = (value: string): string => t(`works/levels/${value}`);
  return (
    <div>
      <p className={classes.risk}>
        {t('works/risk', { risk: level(risk), impact: level(impact), likelihood: level(likelihood) })}
      </p>
      <p>
        {people === 0 ? t('works/reach/nobody') : t('works/reach/people', { count: people })}{' '}
        {down.length > 0 && t('works/reach/down', { names: namesOf(down.slice(0, NAMED)) })}{' '}
        {known.downCount > NAMED && t('estate/andMore', { count: known.downCount - NAMED })}{' '}
        {weakenedCount > 0 && t('works/reach/weakened', { count: weakenedCount })}
      </p>
      <p className={classes.quiet}>
        {past.all === 0
          ? t('works/past/none')
          : t('works/past/some', {
              failed: past.failed,
              all: past.all,
              low: percent(past.low),
              high: percent(past.high),
            })}
      </p>
      {retired.length > 0 && <p role="alert">{t('works/retired', { names: namesOf(retired) })}</p>}
      {hasStretch && <Clashes clashes={known.clashes} own={own} />}
    </div>
  );
}
