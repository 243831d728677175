import { Button, Group } from '@mantine/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { Decision } from '../ask/home/Decision';
import { useAsks } from '../api/queries';
import { EstateFrame } from '../estate/EstateFrame';
import '../messages/worksWords';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { useTimes } from '../ui/useTimes';
import { useNow } from '../api/clock';
import { Waiting } from '../ui/Waiting';
import { Reckoned } from './Reckoned';
import { useWork, useWorks } from './useWorks';
import classes from './Works.module.css';

/** One change as those read it who decide: what, when, how it is taken back, and what it reaches. */
function One({ number }: { number: number }) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const { data: work, error } = useWork(number);
  const { data: asks = [] } = useAsks();
  if (error) return <ProblemNote error={error} />;
  if (!work) return <Waiting />;
  const ask = asks.find((each) => each.number === number);
  const pairs = (['why', 'test', 'takeBack'] as const).map(
    (name) => [t(`works/fields/${name}`), work[name]] as const,
  );
  return (
    <article>
      <h2>
        <Link to={`/estate/works/${number}`}>
          {number} <bdi>{work.title}</bdi>
        </Link>
      </h2>
      <p>
        {t(`works/sorts/${work.sort}`)}
        {work.fromAt !== null &&
          work.toAt !== null &&
          ` · ${times.when(work.fromAt, now)} – ${times.when(work.toAt, now)}`}
        {` · ${work.things.map(({ name }) => name).join(', ')}`}
      </p>
      {pairs.map(([name, words]) => (
        <p key={name}>
          <b>{name}:</b> <bdi>{words}</bdi>
        </p>
      ))}
      <Reckoned known={work.reckoned} own={number} hasStretch />
      {ask ? (
        <Decision ask={ask} isChosen={false} onChoose={null} />
      ) : (
        <p className={classes.quiet}>{t('works/meeting/notYours')}</p>
      )}
    </article>
  );
}

/** The board's meeting: what is to be decided, one after the other. */
export function BoardPage() {
  const { t } = useWords();
  const { data, error, refetch } = useWorks();
  const [at, setAt] = useState(0);
  const asked = (data ?? []).filter(
    ({ stage, sort }) => stage === 'asked' || (sort === 'emergency' && stage === 'goingOn'),
  );
  const place = Math.min(at, asked.length - 1);
  const one = asked[place];
  return (
    <EstateFrame title={t('works/board')} lead={t('works/meeting/lead')}>
      {error && !data && <ProblemNote error={error} onRetry={() => void refetch()} />}
      {!data && !error && <Waiting />}
      {data && asked.length === 0 && <p>{t('works/meeting/none')}</p>}
      {one && (
        <>
          <Group mb="md">
            <Button size="xs" variant="default" disabled={place === 0} onClick={() => setAt(place - 1)}>
              {t('works/meeting/before')}
            </Button>
            <span>{t('works/meeting/of', { at: place + 1, count: asked.length })}</span>
            <Button
              size="xs"
              variant="default"
              disabled={place === asked.length - 1}
              onClick={() => setAt(place + 1)}
            >
              {t('works/meeting/next')}
            </Button>
          </Group>
          <One key={one.number} number={one.number} />
        </>
      )}
    </EstateFrame>
  );
}
