import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { TalkView } from '../../../contract/assistant';
import { Turn } from '../../ask/assistant/Turn';
import talkClasses from '../../ask/assistant/Assistant.module.css';
import { call } from '../../api/call';
import { useNow } from '../../api/clock';
import { api } from '../../api/endpoints';
import knowledge from '../../knowledge/Knowledge.module.css';
import { Period } from '../../knowledge/Period';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import { Waiting } from '../../ui/Waiting';
import { Sureness } from './Sureness';
import classes from './Matters.module.css';

type Which = 'all' | 'understood' | 'alone' | 'handedOver';
type Behind = { which: Which; matterId?: string };

/** A conversation as it ran, with how sure it was at each step. */
function AsItRan({ id }: { id: string }) {
  const { data, error } = useQuery({
    queryKey: ['talk', id],
    queryFn: (): Promise<TalkView> => call(api.assistant.read, { params: { id } }),
  });
  if (error) return <ProblemNote error={error} />;
  if (!data) return <Waiting />;
  return (
    <div className={talkClasses.turns}>
      {data.turns.map((turn) => (
        <Turn
          key={turn.place}
          turn={turn}
          title=""
          onInput={null}
          foot={turn.likely && <Sureness likely={turn.likely.slice(0, 3)} />}
        />
      ))}
    </div>
  );
}

/** The conversations behind a figure. */
function Talks({ days, behind }: { days: number; behind: Behind }) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const [opened, setOpened] = useState<string | null>(null);
  const { data = [], isPending } = useQuery({
    queryKey: ['talks', days, behind],
    queryFn: () => call(api.assistant.talks, { query: { days, ...behind } }),
  });
  if (isPending) return <Waiting />;
  if (data.length === 0) return <p>{t('assistant/workshop/noTalks')}</p>;
  return (
    <div className={classes.talks}>
      <table className={knowledge.rows}>
        <thead>
          <tr>
            <th>{t('assistant/workshop/when')}</th>
            <th>{t('assistant/workshop/first')}</th>
            <th>{t('assistant/matter')}</th>
            <th>{t('assistant/workshop/outcome')}</th>
          </tr>
        </thead>
        <tbody>
          {data.map(({ id, at, first, matter, outcome, person }) => (
            <tr key={id}>
              <td className={knowledge.quiet}>
                {times.when(at, now)}
                <br />
                {person?.name}
              </td>
              <td>
                <button type="button" aria-expanded={opened === id} onClick={() => setOpened(id)}>
                  <bdi>{first}</bdi>
                </button>
              </td>
              <td>{matter ?? t('assistant/notYet')}</td>
              <td>{t(`assistant/workshop/outcomes/${outcome}`)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {opened !== null && <AsItRan id={opened} />}
    </div>
  );
}

/** How good the assistant is; each number opens its conversations. */
export function Figures() {
  const { t } = useWords();
  const [days, setDays] = useState(28);
  const [behind, setBehind] = useState<Behind>({ which: 'all' });
  const { data, error, refetch } = useQuery({
    queryKey: ['assistantFigures', days],
    queryFn: () => call(api.assistant.figures, { query: { days } }),
  });
  if (error && !data) return <ProblemNote error={error} onRetry={() => void refetch()} />;
  if (!data) return <Waiting />;
  const share = (part: number, all: number): string =>
    all === 0 ? '–' : `${Math.round((100 * part) / all)} %`;
  const open = (count: number, next: Behind) => (
    <button type="button" className={classes.number} onClick={() => setBehind(next)}>
      {count}
    </button>
  );
  return (
    <div>
      <Period days={days} onChange={setDays} />
      <p className={knowledge.counts}>
        {(
          [
            ['talks', data.talks, 'all'],
            ['understoodCount', data.understood, 'understood'],
            ['alone', data.alone, 'alone'],
            ['handedOver', data.handedOver, 'handedOver'],
          ] as const
        ).map(([name, count, which]) => (
          <span key={name}>
            {open(count, { which })} {t(`assistant/workshop/${name}`)}
            {which !== 'all' && ` (${share(count, data.talks)})`}
          </span>
        ))}
        {data.rating !== null && (
          <span>
            <b>{data.rating.toFixed(1)}</b> {t('assistant/workshop/rating')}
          </span>
        )}
      </p>
      <div className={knowledge.split}>
        <Talks days={days} behind={behind} />
        <table className={knowledge.rows}>
          <thead>
            <tr>
              <th>{t('assistant/matter')}</th>
              <th data-number>{t('assistant/workshop/talks')}</th>
              <th data-number>{t('assistant/workshop/alone')}</th>
              <th data-number>{t('assistant/workshop/handedOver')}</th>
              <th data-number>{t('assistant/workshop/rating')}</th>
            </tr>
          </thead>
          <tbody>
            {data.byMatter.map(({ matterId, name, talks, alone, handedOver, rating }) => (
              <tr key={matterId}>
                <td>{name}</td>
                <td data-number>{open(talks, { which: 'all', matterId })}</td>
                <td data-number>
                  {open(alone, { which: 'alone', matterId })} {share(alone, talks)}
                </td>
                <td data-number>{open(handedOver, { which: 'handedOver', matterId })}</td>
                <td data-number>{rating === null ? '–' : rating.toFixed(1)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </div>
  );
}
