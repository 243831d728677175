import type { ChartAnswer } from '../../../contract/measures';
import type { Chart } from '../../../core/measures';
import { useWords } from '../../messages/useWords';
import { judged } from '../chart/options';
import classes from './Boards.module.css';
import { useChartWords } from './useChartWords';

const MINUTE = 60_000;
/** Fewer values are not judged. */
const LEAST_VALUES = 6;

/** What a chart over time shows, in words: what is usual of it, and what is not. */
function Signals({ chart, answer }: { chart: Chart; answer: ChartAnswer }) {
  const { t } = useWords();
  const { figure, bucket } = useChartWords();
  const { known, places, chart: usual } = judged(answer);
  const { mean, lower, upper, signals } = usual;
  const lowest = lower === null ? null : Math.max(0, lower);
  const latest = signals.slice(-3);
  return (
    <p className={classes.said}>
      {t('boards/usual', {
        ...{ mean: figure(chart, mean), lower: figure(chart, lowest), upper: figure(chart, upper) },
      })}
      {'. '}
      {known.length < LEAST_VALUES
        ? t('boards/signals/tooFew')
        : latest.length === 0
          ? t('boards/signals/none')
          : latest
              .map(({ at, rule }) =>
                t(`boards/signals/${rule}`, {
                  at: bucket(answer.buckets[places[at]!]!, chart.every!, answer),
                }),
              )
              .join(' ')}
    </p>
  );
}

/** The honest time to done beside the one that is usually said. */
function Honest({ answer }: { answer: ChartAnswer }) {
  const { t } = useWords();
  const { span } = useChartWords();
  const survival = answer.course?.survival;
  if (!survival) return null;
  const { median, usual, open } = survival;
  const say = (ms: number): string => span(Math.round(ms / MINUTE));
  return (
    <p className={classes.said}>
      {median === null ? t('boards/survival/never') : t('boards/survival/median', { honest: say(median) })}{' '}
      {usual !== null && t('boards/survival/usual', { usual: say(usual), open })}
    </p>
  );
}

/** What a chart shows, in words, where it can be said. */
export function Said({ chart, answer }: { chart: Chart; answer: ChartAnswer }) {
  if (chart.show === 'process') return <Signals chart={chart} answer={answer} />;
  return chart.show === 'survival' ? <Honest answer={answer} /> : null;
}
