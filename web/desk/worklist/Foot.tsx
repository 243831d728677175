import { useNow } from '../../api/clock';
import { useWords } from '../../messages/useWords';
import { useLastChange } from '../../frame/Frame';
import { useTimes } from '../../ui/useTimes';
import classes from './Worklist.module.css';

const KEYS: [string, string][] = [
  ['↑ ↓', 'desk/move'],
  ['Enter', 'desk/open'],
  ['T', 'keys/take'],
  ['H', 'keys/hold'],
  ['D', 'keys/finish'],
  ['?', 'desk/allKeys'],
];

/** The keys at hand, and the last change that came in. */
export function Foot({ isPlain = false }: { isPlain?: boolean }) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(5_000);
  const last = useLastChange();
  const seconds = last ? Math.max(0, Math.round((now - last.at) / 1000)) : 0;
  const ago = seconds < 60 ? t('time/justNow') : t('time/ago', { span: times.span(seconds / 60) });
  return (
    <div className={classes.foot}>
      {(isPlain ? KEYS.slice(-1) : KEYS).map(([key, words]) => (
        <span key={key} className={classes.wide}>
          <kbd>{key}</kbd>
          {t(words)}
        </span>
      ))}
      <span>
        {t('frame/live')}
        {last?.number &&
          ` · ${t('frame/lastChange', { ago, who: last.actor ?? '', what: t(`verbs/${last.type}`, { defaultValue: t('verbs/other') }), number: last.number })}`}
      </span>
    </div>
  );
}
