import { Button, TextInput } from '@mantine/core';
import { useQuery, useMutation, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Conversation } from '../../../contract/conversations';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useAskSearch, useMe } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { PastConversations } from '../people/PastConversations';
import { usePersonCard } from '../people/PersonTickets';
import classes from './Conversations.module.css';

type Props = { conversation: Conversation; onInsert(text: string): void };
const SHOWN = 4;
const READY_SHOWN = 8;

/** Articles and services found from what is being said. */
function Fits({ words, onInsert }: { words: string; onInsert(text: string): void }) {
  const { t, local, language } = useWords();
  const q = words.slice(0, 200);
  const articles = useQuery({
    queryKey: ['talkArticles', q, language],
    enabled: q.trim() !== '',
    queryFn: () => call(api.knowledge.search, { query: { q } }),
  });
  const services = useAskSearch(q);
  const found = [
    ...(articles.data ?? [])
      .slice(0, SHOWN)
      .map(({ id, title }) => ({ to: `/ask/articles/${id}`, name: title })),
    ...(services.data?.services ?? [])
      .slice(0, 2)
      .map(({ id, title }) => ({ to: `/ask/services/${id}`, name: local(title) })),
  ];
  if (found.length === 0) return null;
  return (
    <>
      <h2>{t('talk/desk/fits')}</h2>
      <ul>
        {found.map(({ to, name }) => (
          <li key={to}>
            <Link to={to} target="_blank">
              {name}
            </Link>{' '}
            <button
              type="button"
              aria-label={t('talk/desk/insert', { name })}
              onClick={() => onInsert(`${name}: ${window.location.origin}${to}`)}
            >
              {t('talk/desk/put')}
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}

function ReadyTexts({ conversation, onInsert }: Props) {
  const { t, language } = useWords();
  const me = useMe();
  const { data = [] } = useQuery({ queryKey: ['readyTexts'], queryFn: () => call(api.readyTexts.list) });
  if (data.length === 0) return null;
  const fill = (text: string): string =>
    text
      .replaceAll('{name}', conversation.person.name.split(' ')[0]!)
      .replaceAll('{me}', me.name)
      .replace(/\{number\}/gu, String(conversation.ticket?.number ?? ''))
      .replace(/\{\w+\}/gu, '');
  return (
    <>
      <h2>{t('talk/desk/ready')}</h2>
      <p className={classes.ready}>
        {data.slice(0, READY_SHOWN).map(({ id, name, text }) => (
          <button key={id} type="button" onClick={() => onInsert(fill(text[language] || text.en))}>
            {name}
          </button>
        ))}
      </p>
    </>
  );
}

/** A ticket made from it in one go, or one that there is tied to it; a device confirmed by its tag. */
function Deeds({ conversation }: { conversation: Conversation }) {
  const { t } = useWords();
  const client = useQueryClient();
  const { id, ticket, side } = conversation;
  const [title, setTitle] = useState('');
  const [tag, setTag] = useState('');
  const renew = () => client.invalidateQueries({ queryKey: ['conversation', id] });
  const make = useMutation({
    mutationFn: (number: number | null) =>
      call(api.conversations.ticket, { params: { id }, body: { number, title }, key: nanoid() }),
    onSettled: renew,
  });
  const tie = useMutation({
    mutationFn: () => call(api.conversations.device, { params: { id }, body: { tag } }),
    onSuccess: () => setTag(''),
    onSettled: renew,
  });
  return (
    <>
      {ticket ? (
        <p>
          <Link to={`/desk/everything/${ticket.number}`}>
            {t('talk/becameTicket', { number: ticket.number, title: ticket.title })}
          </Link>
        </p>
      ) : (
        <form
          className={classes.deed}
          onSubmit={(event) => {
            event.preventDefault();
            make.mutate(null);
          }}
        >
          <TextInput
            size="xs"
            aria-label={t('talk/desk/ticketTitle')}
            placeholder={t('talk/desk/ticketTitle')}
            value={title}
            onChange={({ target }) => setTitle(target.value)}
          />
          <Button type="submit" size="compact-sm" loading={make.isPending}>
            {t('talk/desk/makeTicket')}
          </Button>
        </form>
      )}
      <h2>{t('talk/desk/openTickets')}</h2>
      {side!.openTickets.length === 0 && <p>{t('talk/desk/none')}</p>}
      <ul>
        {side!.openTickets.map((open) => (
          <li key={open.number}>
            <Link to={`/desk/everything/${open.number}`}>
              {open.number} <bdi>{open.title}</bdi>
            </Link>{' '}
            {ticket?.number !== open.number && (
              <button type="button" onClick={() => make.mutate(open.number)}>
                {t('talk/desk/tie', { number: open.number })}
              </button>
            )}
          </li>
        ))}
      </ul>
      <form
        className={classes.deed}
        onSubmit={(event) => {
          event.preventDefault();
          tie.mutate();
        }}
      >
        <TextInput
          size="xs"
          aria-label={t('talk/desk/device')}
          placeholder={side!.assetTag ?? t('talk/desk/device')}
          value={tag}
          onChange={({ target }) => setTag(target.value)}
        />
        <Button
          type="submit"
          size="compact-sm"
          variant="default"
          loading={tie.isPending}
          disabled={tag.trim() === ''}
        >
          {t('talk/desk/tieDevice')}
        </Button>
      </form>
      <ProblemNote error={make.error ?? tie.error} />
    </>
  );
}

/** Who it is, what they have open, what was before, and what may help. */
export function Side({ conversation, onInsert }: Props) {
  const { t } = useWords();
  const { data: card } = usePersonCard(conversation.person.id);
  const said = conversation.entries.filter(
    ({ type, readBy, author }) =>
      type === 'words' && readBy === 'all' && author?.id === conversation.person.id,
  );
  return (
    <aside className={classes.side} aria-label={conversation.person.name}>
      <h2>{conversation.person.name}</h2>
      {card && (
        <p>
          {[card.title, card.site, card.known.place, card.known.device, card.known.vessel]
            .filter(Boolean)
            .join(' · ')}
          <br />
          {card.phone}
        </p>
      )}
      <Deeds conversation={conversation} />
      <Fits words={said.map(({ text }) => text).join(' ')} onInsert={onInsert} />
      <ReadyTexts conversation={conversation} onInsert={onInsert} />
      {conversation.side!.before.length > 0 && (
        <>
          <h2>{t('talk/desk/before')}</h2>
          <PastConversations conversations={conversation.side!.before} />
        </>
      )}
    </aside>
  );
}
