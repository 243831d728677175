import { Button } from '@mantine/core';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Hangs as HangsView, Thing } from '../../contract/estate';
import { LOCALES } from '../../core/forms';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { Waiting } from '../ui/Waiting';
import classes from './Estate.module.css';
import { NeedsEditor } from './NeedsEditor';
import { ThingRefs } from './ThingRefs';
import { useHangs } from './useThings';

/** What would happen if it failed: in words first, then by name. */
function Consequence({ falls }: Pick<HangsView, 'falls'>) {
  const { t, language } = useWords();
  const { downCount, weakenedCount, people, watched, down, weakened } = falls;
  const said = [
    downCount === 0 ? t('estate/fallsNothing') : t('estate/falls', { count: downCount }),
    ...(weakenedCount > 0 ? [t('estate/weakens', { count: weakenedCount })] : []),
    ...(people > 0 ? [t('estate/people', { count: people })] : []),
  ];
  const list = new Intl.ListFormat(LOCALES[language]);
  return (
    <section className={classes.section} aria-labelledby="if-fails">
      <h2 id="if-fails">{t('estate/ifFails')}</h2>
      <p className={classes.consequence}>
        {said.join(' · ')}
        {watched.length > 0 && (
          <>
            <br />
            {t('estate/watchedFall', { names: list.format(watched.map(({ name }) => name)) })}
          </>
        )}
      </p>
      <ThingRefs things={down} count={downCount} />
      {weakened.length > 0 && (
        <>
          <p className={classes.quiet}>{t('estate/weakens', { count: weakenedCount })}:</p>
          <ThingRefs things={weakened} count={weakenedCount} />
        </>
      )}
    </section>
  );
}

/** How many of the things of a need there have to be, in words. */
export function useNeedWords(): (atLeast: number, all: number) => string {
  const { t } = useWords();
  return (atLeast, all) => {
    if (atLeast === 0) return t('estate/nothingOf');
    if (all === 1) return '';
    if (atLeast === all) return t('estate/allOf');
    return atLeast === 1 ? t('estate/oneOf') : t('estate/someOf', { count: atLeast, all });
  };
}

function Needs({ thing, hangs }: { thing: Thing; hangs: HangsView }) {
  const { t } = useWords();
  const say = useNeedWords();
  const [isChanging, setChanging] = useState(false);
  return (
    <section className={classes.section} aria-labelledby="needs">
      <h2 id="needs">
        {t('estate/needs')}
        {thing.mayKeep && (
          <Button size="compact-xs" variant="subtle" onClick={() => setChanging(true)}>
            {t('estate/changeNeeds')}
          </Button>
        )}
      </h2>
      {isChanging && <NeedsEditor {...{ thing, hangs }} onClose={() => setChanging(false)} />}
      {hangs.needs.length === 0 && (
        <p className={classes.quiet}>
          {t(hangs.neededByCount === 0 ? 'estate/standsAlone' : 'estate/needsNothing')}
        </p>
      )}
      {hangs.needs.map(({ atLeast, of, isMet }, i) => (
        <div key={i}>
          <span className={classes.quiet}>{say(atLeast, of.length)}</span>
          {!isMet && <b> {t('estate/unmet')}</b>}
          <ThingRefs things={of} />
        </div>
      ))}
    </section>
  );
}

/** What a watched thing can promise, and what takes it down alone. */
function Promises({ hangs: { availability, isTooEntangled, alone } }: { hangs: HangsView }) {
  const { t, language } = useWords();
  const share = new Intl.NumberFormat(LOCALES[language], { maximumSignificantDigits: 6 });
  if (availability === null && !isTooEntangled && alone.length === 0) return null;
  return (
    <section className={classes.section} aria-labelledby="alone">
      <h2 id="alone">{t('estate/alone')}</h2>
      {availability !== null && (
        <p>{t('estate/promises', { share: share.format(Number((availability * 100).toFixed(4))) })}</p>
      )}
      {isTooEntangled && <p>{t('estate/tooEntangled')}</p>}
      <ThingRefs things={alone} />
    </section>
  );
}

/** What hangs on a thing and what it hangs on. */
export function Hangs({ thing }: { thing: Thing }) {
  const { t } = useWords();
  const { data: hangs, error, refetch } = useHangs(thing.id);
  if (error && !hangs) return <ProblemNote error={error} onRetry={() => void refetch()} />;
  if (!hangs) return <Waiting />;
  return (
    <>
      {hangs.standing !== 'up' && (
        <p className={classes.band} role="status">
          {t(hangs.standing === 'down' ? 'estate/isDown' : 'estate/isWeakened')}
        </p>
      )}
      <Consequence falls={hangs.falls} />
      {thing.isWatched && <Promises hangs={hangs} />}
      <Needs {...{ thing, hangs }} />
      {(hangs.needs.length > 0 || hangs.neededByCount > 0) && (
        <section className={classes.section} aria-labelledby="needed-by">
          <h2 id="needed-by">
            {t('estate/neededBy')}
            <Link to={`/estate/${thing.id}/map`}>{t('estate/map')}</Link>
          </h2>
          {hangs.neededBy.length === 0 && <p className={classes.quiet}>{t('estate/neededByNothing')}</p>}
          <ThingRefs things={hangs.neededBy} count={hangs.neededByCount} />
        </section>
      )}
    </>
  );
}
