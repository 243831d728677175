import { Button, Group, TextInput } from '@mantine/core';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useDeferredValue, useState } from 'react';
import { Link } from 'react-router';
import type { Ticket } from '../../../contract/tickets';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useMe, useRenew } from '../../api/queries';
import { dropDraft } from '../../api/useDraft';
import { ArticleText } from '../../knowledge/ArticleText';
import { Passage } from '../../knowledge/Passage';
import { useArticle } from '../../knowledge/useKnowledge';
import '../../messages/knowledgeWords';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useHeld } from '../../ui/useHeld';
import classes from './Articles.module.css';
import { Sharing } from './Sharing';

function InPlace({ id }: { id: string }) {
  const { data } = useArticle(id);
  return data ? (
    <div className={classes.text}>
      <ArticleText body={data.body} lang={data.language} />
    </div>
  ) : null;
}

/** What is written on a ticket's matter: read in place, sent as an answer, or found missing. */
export function Articles({ ticket }: { ticket: Ticket }) {
  const { t } = useWords();
  const client = useQueryClient();
  const me = useMe();
  const renew = useRenew();
  const { number, requester } = ticket;
  const [words, setWords] = useState('');
  const [opened, setOpened] = useState<string | null>(null);
  const asked = useDeferredValue(words);
  const { data } = useQuery({
    queryKey: ['ticketArticles', number, asked],
    queryFn: ({ signal }) =>
      call(api.knowledge.forTicket, { params: { number }, query: { q: asked }, signal }),
    placeholderData: keepPreviousData,
    staleTime: 30_000,
  });
  const onSettled = async (): Promise<void> => {
    renew(number);
    await client.invalidateQueries({ queryKey: ['ticketArticles', number] });
  };
  const share = useMutation({
    mutationFn: ({ id, text }: { id: string; text: string }) =>
      call(api.knowledge.share, { params: { number, id }, body: { text }, key: nanoid() }),
    onSettled,
  });
  const hold = useHeld();
  const [sharing, setSharing] = useState<string | null>(null);
  const [held, setHeld] = useState<string[]>([]);
  function send(id: string, text: string): void {
    const endHeld = (): void => setHeld((all) => all.filter((each) => each !== id));
    setSharing(null);
    setHeld((all) => [...all, id]);
    hold({
      message: t('knowledge/goes', { name: requester.name }),
      undo: t('common/undo'),
      onDo: () =>
        share.mutate(
          { id, text },
          { onSettled: endHeld, onSuccess: () => dropDraft(me.id, `sharing:${number}:${id}`) },
        ),
      onUndo() {
        endHeld();
        setSharing(id);
      },
    });
  }
  const nothing = useMutation({
    mutationFn: (isNothing: boolean) =>
      call(api.knowledge.nothing, { params: { number }, body: { isNothing } }),
    onSettled,
  });
  const { articles = [], sharedIds = [], shareableIds = [], isNothing = false } = data ?? {};
  const mayAnswer = ticket.rights.includes('answer');
  return (
    <section className={classes.articles} aria-label={t('knowledge/fitting')}>
      <h2>{t('knowledge/fitting')}</h2>
      <TextInput
        size="xs"
        aria-label={t('knowledge/ownWords')}
        placeholder={t('knowledge/ownWords')}
        value={words}
        onChange={({ target }) => setWords(target.value)}
      />
      {data && articles.length === 0 && <p>{t('knowledge/noneFits')}</p>}
      {articles.map(({ id, title, passage, helped, judged }) => (
        <div key={id} className={classes.found}>
          <button
            type="button"
            aria-expanded={opened === id}
            onClick={() => setOpened(opened === id ? null : id)}
          >
            {title}
          </button>
          {sharedIds.includes(id) || held.includes(id) ? (
            <small>{t('knowledge/sent')}</small>
          ) : (
            mayAnswer &&
            shareableIds.includes(id) && (
              <Button
                size="compact-xs"
                variant="default"
                aria-label={`${t('knowledge/send')}: ${title}`}
                aria-expanded={sharing === id}
                onClick={() => setSharing(sharing === id ? null : id)}
              >
                {t('knowledge/send')}
              </Button>
            )
          )}
          {sharing === id && (
            <Sharing
              {...{ number, articleId: id, requesterName: requester.name }}
              onSend={(text) => send(id, text)}
              onClose={() => setSharing(null)}
            />
          )}
          {opened === id ? (
            <InPlace id={id} />
          ) : (
            <small className={classes.passage}>
              <Passage parts={passage} />
              {judged > 0 && ` ${t('ask/helped', { helped, judged })}`}
            </small>
          )}
        </div>
      ))}
      {share.error && <ProblemNote error={share.error} />}
      <Group gap="xs" mt={6}>
        <Link to={`/knowledge/new?ticket=${number}`}>{t('knowledge/writeFromTicket')}</Link>
        <button
          type="button"
          className={classes.link}
          aria-pressed={isNothing}
          onClick={() => nothing.mutate(!isNothing)}
        >
          {t(isNothing ? 'knowledge/nothingSaid' : 'knowledge/nothing')}
        </button>
      </Group>
    </section>
  );
}
