import { Button, Group, TextInput } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { MatterBody, TalkInput, TurnView } from '../../../contract/assistant';
import {
  NEW_TALK,
  proceed,
  titleOf,
  type Input,
  type Matter,
  type Talk,
  type Turn,
} from '../../../core/assistant';
import type { LocalText } from '../../../core/forms';
import { Turn as TurnShown } from '../../ask/assistant/Turn';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import classes from './Matters.module.css';

/** The matter as it is being written, by this name within the trial. */
const DRAFT = 'draft';

type Known = { id: string; name: LocalText } & Matter;
type Ran = { talk: Talk; turns: TurnView[] };
const BEGUN: Ran = { talk: NEW_TALK, turns: [] };

function useTurnView(known: Known[], articles: { id: string; title: string }[]) {
  const { local } = useWords();
  const choicesOf = (ids: string[]): TurnView['choices'] =>
    ids.flatMap((id) => {
      const matter = known.find((each) => each.id === id);
      return matter ? [{ id, name: local(matter.name) }] : [];
    });
  return (turn: Turn): Omit<TurnView, 'place' | 'at' | 'by'> => {
    if ('do' in turn) return { say: 'ticket', isHandOver: turn.isHandOver };
    switch (turn.say) {
      case 'confirm':
      case 'choose':
      case 'both':
      case 'other':
        return { say: turn.say, choices: choicesOf(turn.matterIds) };
      case 'text':
        return { say: 'text', text: local(turn.text) };
      case 'question':
        return {
          say: 'question',
          text: local(turn.text),
          choices: turn.choices.map((choice) => ({ id: local(choice), name: local(choice) })),
        };
      case 'article': {
        const title = articles.find(({ id }) => id === turn.articleId)?.title ?? '';
        return {
          say: 'article',
          text: '',
          articles: [{ id: turn.articleId, title, passage: [], helped: 0, judged: 0 }],
        };
      }
      case 'form':
      case 'state':
        return { say: turn.say, serviceId: turn.serviceId };
      default:
        return { say: turn.say };
    }
  };
}

/** What one did oneself, as it stands in a conversation. */
function sayOwn(input: TalkInput, nameOf: (id: string) => string): Omit<TurnView, 'place' | 'at' | 'by'> {
  switch (input.kind) {
    case 'words':
      return { say: 'words', text: input.text };
    case 'pick':
    case 'team':
      return { say: 'words', text: nameOf(input.id) };
    case 'helped':
      return { say: input.helped ? 'yes' : 'no' };
    default:
      return { say: input.kind };
  }
}

/** A whole conversation with the matter as it is being written: it runs here, and nothing is kept of it. */
export function TrialTalk({
  matterId,
  draft,
  articles,
}: {
  matterId: string | null;
  draft: MatterBody;
  articles: { id: string; title: string }[];
}) {
  const { t, local, language } = useWords();
  const { data: matters = [] } = useQuery({
    queryKey: ['matters', 'list'],
    queryFn: () => call(api.assistant.matters),
  });
  const [ran, setRan] = useState<Ran>(BEGUN);
  const [words, setWords] = useState('');
  const own: Known = { ...draft, id: matterId ?? DRAFT };
  const known: Known[] = [own, ...matters.filter(({ id }) => id !== matterId)];
  const toView = useTurnView(known, articles);
  const put = (input: TalkInput, offered: Input, before: Ran): void => {
    const next = proceed(before.talk, offered, (id) => known.find((each) => each.id === id));
    const said = sayOwn(input, (id) =>
      local(known.find((each) => each.id === id)?.name ?? { en: id, pt: id }),
    );
    const all = [
      { ...said, by: 'person' as const },
      ...next.turns.map((turn) => ({ ...toView(turn), by: 'assistant' as const })),
    ];
    const turns = all.map((turn, i) => ({ ...turn, at: 0, place: before.turns.length + i }));
    setRan({ talk: next.talk, turns: [...before.turns, ...turns] });
  };
  const hear = useMutation({
    mutationFn: (text: string) => call(api.assistant.understood, { query: { q: text, language } }),
    onSuccess: ({ kind, ids }, text) =>
      put({ kind: 'words', text }, { kind: 'words', text, offer: { kind, ids } }, ran),
  });
  const act = (input: TalkInput): void => {
    if (input.kind === 'words') hear.mutate(input.text);
    else put(input, input, ran);
  };
  const begin = (): void => {
    const talk: Talk = { ...NEW_TALK, phase: 'confirm', offered: [own.id] };
    put({ kind: 'pick', id: own.id }, { kind: 'pick', id: own.id }, { talk, turns: [] });
  };
  const isOver = ran.talk.phase === 'ended';
  return (
    <section aria-label={t('assistant/workshop/talk')}>
      <h2 className={classes.heading}>{t('assistant/workshop/talk')}</h2>
      <div aria-live="polite">
        {ran.turns.map((turn, i) => (
          <TurnShown
            key={turn.place}
            turn={turn}
            title={titleOf(ran.talk) ?? ''}
            onInput={i === ran.turns.length - 1 && !isOver && !hear.isPending ? act : null}
          />
        ))}
      </div>
      {ran.talk.phase === 'waiting' && (
        <Group gap="xs" mb="xs">
          {([true, false] as const).map((isAgreed) => (
            <Button
              key={`${isAgreed}`}
              size="compact-xs"
              variant="default"
              onClick={() => put({ kind: 'helped', helped: isAgreed }, { kind: 'decided', isAgreed }, ran)}
            >
              {t(isAgreed ? 'assistant/workshop/asIfAgreed' : 'assistant/workshop/asIfNot')}
            </Button>
          ))}
        </Group>
      )}
      {isOver ? (
        <p>{t(`assistant/workshop/ends/${ran.talk.outcome}`)}</p>
      ) : (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            event.stopPropagation();
            if (words.trim() === '') return;
            hear.mutate(words.trim());
            setWords('');
          }}
        >
          <TextInput
            size="xs"
            mt="xs"
            aria-label={t('assistant/writeHere')}
            placeholder={t('assistant/writeHere')}
            value={words}
            onChange={({ target }) => setWords(target.value)}
          />
        </form>
      )}
      <ProblemNote error={hear.error} />
      <Group gap="xs" mt="xs">
        <Button size="compact-xs" variant="default" onClick={begin}>
          {t('assistant/workshop/beginHere')}
        </Button>
        {ran.turns.length > 0 && (
          <Button size="compact-xs" variant="subtle" onClick={() => setRan(BEGUN)}>
            {t('assistant/anew')}
          </Button>
        )}
      </Group>
    </section>
  );
}
