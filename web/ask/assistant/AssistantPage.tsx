import { Button, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useEffect, useRef } from 'react';
import { useSearchParams } from 'react-router';
import type { TalkInput, TalkView } from '../../../contract/assistant';
import { ApiProblem, call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useDraft } from '../../api/useDraft';
import '../../messages/assistantWords';
import { fetchTextForm } from '../../knowledge/ArticleText';
import { useWords } from '../../messages/useWords';
import { Lost } from '../../ui/Lost';
import { FittingNotices } from '../../notices/Bands';
import { ProblemNote } from '../../ui/ProblemNote';
import { Rating } from '../../ui/Rating';
import { Waiting } from '../../ui/Waiting';
import classes from './Assistant.module.css';
import { Turn } from './Turn';

/** What silence comes to is said by the server. */
const LOOK_MS = 15_000;

/** What it has understood so far; all of it goes along if a person takes over. */
function Understood({ talk, onPerson }: { talk: TalkView; onPerson(): void }) {
  const { t } = useWords();
  return (
    <aside className={classes.understood} aria-label={t('assistant/understood')}>
      <h2>{t('assistant/understood')}</h2>
      <dl>
        <dt>{t('assistant/matter')}</dt>
        <dd>{talk.matter ?? t('assistant/notYet')}</dd>
        {talk.fields.map(({ name, label, value }) => (
          <div key={name} style={{ display: 'contents' }}>
            <dt>{label}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
      {talk.phase !== 'ended' && (
        <p>
          {t('assistant/goesAlong')}{' '}
          <button type="button" onClick={onPerson}>
            {t('assistant/toPerson')}
          </button>
        </p>
      )}
    </aside>
  );
}

function Conversation({ first }: { first: TalkView }) {
  const { t } = useWords();
  const client = useQueryClient();
  const [search, setSearch] = useSearchParams();
  const [words, setWords, clear] = useDraft(`assistant:${first.id}`, search.get('say') ?? '');
  const keep = (talk: TalkView): void => void client.setQueryData(['assistant'], talk);
  const end = useRef<HTMLDivElement>(null);
  useQuery({
    queryKey: ['assistant', first.id],
    enabled: first.phase !== 'ended',
    refetchInterval: LOOK_MS,
    queryFn: async () => {
      const talk = await call(api.assistant.mine, { params: { id: first.id } });
      if (talk.turns.length > first.turns.length) keep(talk);
      return talk.turns.length;
    },
  });
  const saying = useMutation({
    mutationFn: ({ input, key }: { input: TalkInput; key: string }) =>
      call(api.assistant.say, { params: { id: first.id }, body: { input }, key }),
    onSuccess: (talk, { input }) => {
      if (input.kind === 'words') clear();
      if (search.size > 0) setSearch({}, { replace: true });
      keep(talk);
    },
  });
  const anew = useMutation({
    mutationFn: async (text: string | null) => {
      const talk = await call(api.assistant.start, { body: { isAnew: true }, key: nanoid() });
      if (text === null) return talk;
      const input = { kind: 'words', text } as const;
      return call(api.assistant.say, { params: { id: talk.id }, body: { input }, key: nanoid() });
    },
    onSuccess: keep,
  });
  const rate = useMutation({
    mutationFn: (rating: number) => call(api.assistant.rate, { params: { id: first.id }, body: { rating } }),
  });
  const isEnded = first.phase === 'ended';
  const say = (input: TalkInput): void => saying.mutate({ input, key: nanoid() });
  // An article may be the answer: its buttons must not move once they are there.
  useEffect(fetchTextForm, []);
  useEffect(() => {
    // What it answers is no clean-up.
    end.current?.scrollIntoView({ block: 'end' });
  }, [first.turns.length]);
  return (
    <div className={classes.page}>
      <div>
        <h1>{t('assistant/title')}</h1>
        <FittingNotices
          words={
            first.turns
              .filter(({ by }) => by === 'person')
              .map(({ text = '' }) => text)
              .at(-1) ?? ''
          }
        />
        <div className={classes.turns} aria-live="polite">
          {first.turns.map((turn, i) => (
            <Turn
              key={turn.place}
              turn={turn}
              title={first.title ?? ''}
              onInput={i === first.turns.length - 1 && !isEnded && !saying.isPending ? say : null}
              onOther={anew.isPending ? undefined : (name) => anew.mutate(name)}
            />
          ))}
        </div>
        {saying.error && <ProblemNote error={saying.error} />}
        {isEnded ? (
          <div className={classes.end}>
            {rate.isSuccess || first.rating !== null ? (
              <p role="status">{first.closing ?? t('assistant/thanks')}</p>
            ) : (
              <Rating value={rate.variables ?? null} onChange={(rating) => rate.mutate(rating)} />
            )}
            <Button variant="default" loading={anew.isPending} onClick={() => anew.mutate(null)}>
              {t('assistant/anew')}
            </Button>
          </div>
        ) : (
          <form
            className={classes.field}
            onSubmit={(event) => {
              event.preventDefault();
              if (words.trim() !== '' && !saying.isPending) say({ kind: 'words', text: words });
            }}
          >
            <TextInput
              size="md"
              autoFocus
              aria-label={t('assistant/writeHere')}
              placeholder={t('assistant/writeHere')}
              value={words}
              onChange={({ target }) => setWords(target.value)}
            />
            <Button type="submit" size="md" loading={saying.isPending} disabled={words.trim() === ''}>
              {t('assistant/send')}
            </Button>
          </form>
        )}
        <div ref={end} />
      </div>
      <Understood talk={first} onPerson={() => say({ kind: 'person' })} />
    </div>
  );
}

/** A conversation with the assistant; at any moment one can go to a person. */
export function AssistantPage() {
  const { data, error, refetch } = useQuery({
    queryKey: ['assistant'],
    staleTime: Infinity,
    queryFn: () => call(api.assistant.start, { body: {}, key: nanoid() }),
  });
  if (error instanceof ApiProblem && error.code === 'notFound') return <Lost />;
  if (error && !data) return <ProblemNote error={error} onRetry={() => void refetch()} />;
  if (!data) return <Waiting />;
  return <Conversation key={data.id} first={data} />;
}
