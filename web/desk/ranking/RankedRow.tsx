import { Button, Group, Textarea } from '@mantine/core';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { RankedRequest } from '../../../contract/plans';
import { useNow } from '../../api/clock';
import { useDraft } from '../../api/useDraft';
import { useWords } from '../../messages/useWords';
import { useTimes } from '../../ui/useTimes';
import classes from './Ranking.module.css';

export type Said = { words: string; goesAhead: boolean };

type Props = {
  request: RankedRequest;
  place: number;
  grip: ReactNode;
  mayRank: boolean;
  /** Whether a word is being written, and what comes with it. */
  open: { goesAhead: boolean } | null;
  isBusy: boolean;
  onOpen(open: { goesAhead: boolean } | null): void;
  onSay(said: Said, onDone: () => void): void;
};

/** One of the large requests: its place, what it is about, when it is needed, and what can be done with it. */
export function RankedRow({ request, place, grip, mayRank, open, isBusy, onOpen, onSay }: Props) {
  const { t, local } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const {
    number,
    stepId,
    title,
    requester,
    service,
    since,
    neededBy,
    promisedAt,
    forecastAt,
    facts,
    lastWord,
  } = request;
  const [words, setWords, clear] = useDraft(`ranking:${number}:${stepId}`, '');
  const name = requester.name;
  const isLate = forecastAt > promisedAt;
  return (
    <>
      {grip}
      <b className={classes.place}>{place}</b>
      <div>
        <Link to={`/desk/everything/${number}`} className={classes.title}>
          <bdi>{title}</bdi>
        </Link>
        <small>
          {name} · {local(service)} · {t('plan/ranking/since', { when: times.when(since, now) })}
        </small>
        {facts.length > 0 && (
          <ul className={classes.facts}>
            {facts.map((fact) => (
              <li key={fact}>{fact}</li>
            ))}
          </ul>
        )}
        {lastWord && (
          <blockquote className={classes.word}>
            <small>{t('plan/ranking/told', { name: lastWord.by, when: times.when(lastWord.at, now) })}</small>{' '}
            {lastWord.text}
          </blockquote>
        )}
        {open && (
          <form
            onSubmit={(event) => {
              event.preventDefault();
              onSay({ words, goesAhead: open.goesAhead }, clear);
            }}
          >
            <Textarea
              autosize
              autoFocus
              minRows={2}
              maxLength={2000}
              label={t(open.goesAhead ? 'plan/ranking/sayOrNot' : 'plan/ranking/sayTo', { name })}
              value={words}
              onChange={({ target }) => setWords(target.value)}
            />
            <Group gap={8} mt={6}>
              <Button
                size="compact-sm"
                type="submit"
                loading={isBusy}
                disabled={!open.goesAhead && words.trim() === ''}
              >
                {t(open.goesAhead ? 'plan/ranking/ahead' : 'plan/ranking/send')}
              </Button>
              <Button size="compact-sm" variant="default" onClick={() => onOpen(null)}>
                {t('common/cancel')}
              </Button>
            </Group>
          </form>
        )}
      </div>
      <div className={classes.side}>
        <small data-late={isLate || undefined}>
          {isLate
            ? t('plan/ranking/late', { when: times.when(forecastAt, now) })
            : t('plan/ranking/needed', { when: times.when(neededBy, now) })}
        </small>
        {mayRank && !open && (
          <>
            <Button
              size="compact-sm"
              variant={place === 1 ? 'filled' : 'default'}
              aria-label={`${t('plan/ranking/ahead')}: ${title}`}
              onClick={() => onOpen({ goesAhead: true })}
            >
              {t('plan/ranking/ahead')}
            </Button>
            <Button
              size="compact-sm"
              variant="subtle"
              aria-label={`${t('plan/ranking/say')}: ${title}`}
              onClick={() => onOpen({ goesAhead: false })}
            >
              {t('plan/ranking/say')}
            </Button>
          </>
        )}
      </div>
    </>
  );
}
