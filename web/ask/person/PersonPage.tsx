import { Button, Modal, Textarea } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useEffect, useState } from 'react';
import { Link, useLocation } from 'react-router';
import type { Conversation, LineCard } from '../../../contract/conversations';
import { call } from '../../api/call';
import { useNow } from '../../api/clock';
import { api } from '../../api/endpoints';
import { useMyTickets } from '../../api/queries';
import { useMe } from '../../api/queries';
import { useDraft } from '../../api/useDraft';
import '../../messages/talkWords';
import { useWords } from '../../messages/useWords';
import { Entries } from '../../talk/Entries';
import { SayForm } from '../../talk/SayForm';
import classes from '../../talk/Talk.module.css';
import { countSaid, keepRead } from '../../talk/unread';
import { useConversation, useConversationsLive, useDeed } from '../../talk/useConversation';
import { ProblemNote } from '../../ui/ProblemNote';
import { Rating } from '../../ui/Rating';
import { useTimes } from '../../ui/useTimes';
import { Waiting } from '../../ui/Waiting';

/** How long it takes, honestly: also that nobody knows. */
export function useWaitWords(): (wait: LineCard['wait']) => string {
  const { t } = useWords();
  const times = useTimes();
  const span = (minutes: number): string => times.span(Math.max(1, minutes));
  return (wait) =>
    wait === null
      ? t('talk/noAgent')
      : wait.most === 0
        ? t('talk/atOnce')
        : t('talk/wait', { mean: span(wait.mean), most: span(wait.most) });
}

function LineChoice({ line, isChosen, onChoose }: { line: LineCard; isChosen: boolean; onChoose(): void }) {
  const { t, local } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const waitWords = useWaitWords();
  return (
    <label className={classes.line}>
      <input type="radio" name="line" checked={isChosen} disabled={!line.isOpen} onChange={onChoose} />
      <span>
        <b>{local(line.name)}</b>
        <small>{line.isOpen ? local(line.about) : local(line.closedWords)}</small>
      </span>
      <span>
        {line.isOpen
          ? line.waiting > 0
            ? t('talk/waiting', { count: line.waiting })
            : t('talk/nobodyWaits')
          : t('talk/closedUntil', { when: line.opensAt === null ? '' : times.when(line.opensAt, now) })}
        {line.isOpen && <small>{waitWords(line.wait)}</small>}
      </span>
    </label>
  );
}

function Start({ onStarted }: { onStarted(id: string): void }) {
  const { t } = useWords();
  const me = useMe();
  const from = (useLocation().state as { from?: string } | null)?.from ?? '';
  const { data: lines, error } = useQuery({
    queryKey: ['lines'],
    refetchInterval: 15_000,
    queryFn: () => call(api.conversations.lines),
  });
  const [draft, setDraft, clear] = useDraft('person', { lineId: '', words: '' });
  const [key] = useState(() => nanoid());
  const chosen =
    lines?.find(({ id, isOpen }) => isOpen && id === draft.lineId) ?? lines?.find(({ isOpen }) => isOpen);
  const start = useMutation({
    mutationFn: () =>
      call(api.conversations.start, { body: { lineId: chosen!.id, words: draft.words, from }, key }),
    onSuccess: ({ id }) => {
      clear();
      onStarted(id);
    },
  });
  if (error) return <ProblemNote error={error} />;
  if (!lines) return <Waiting />;
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        start.mutate();
      }}
    >
      <p className={classes.quiet}>{t('talk/lead')}</p>
      <div className={classes.lines} role="radiogroup" aria-label={t('talk/line')}>
        {lines.map((line) => (
          <LineChoice
            key={line.id}
            line={line}
            isChosen={line.id === chosen?.id}
            onChoose={() => setDraft({ ...draft, lineId: line.id })}
          />
        ))}
      </div>
      <Textarea
        autosize
        minRows={3}
        label={t('talk/words')}
        value={draft.words}
        onChange={({ target }) => setDraft({ ...draft, words: target.value })}
      />
      <ProblemNote error={start.error} />
      <div className={classes.row} style={{ marginTop: 12 }}>
        <Button type="submit" loading={start.isPending} disabled={!chosen || draft.words.trim() === ''}>
          {t('talk/start')}
        </Button>
        <span className={classes.quiet}>{t('talk/instead')}:</span>
        <Link to="/ask">{t('talk/ticket')}</Link>
        {me.hasAssistant && <Link to="/ask/assistant">{t('talk/assistant')}</Link>}
      </div>
    </form>
  );
}

/** What became of it: what is still open is looked at before one ends it. */
function EndDialog({ onEnd, isEnding, onClose }: { onEnd(): void; isEnding: boolean; onClose(): void }) {
  const { t } = useWords();
  const { data } = useMyTickets('open');
  const open = data?.pages.flatMap(({ rows }) => rows).slice(0, 5) ?? [];
  return (
    <Modal opened onClose={onClose} title={t('talk/endSure')}>
      {open.length > 0 && (
        <>
          <p>{t('talk/endOpen')}</p>
          <ul>
            {open.map(({ number, title }) => (
              <li key={number}>
                <Link to={`/ask/tickets/${number}`}>
                  {number} <bdi>{title}</bdi>
                </Link>
              </li>
            ))}
          </ul>
        </>
      )}
      <div className={classes.row}>
        <Button loading={isEnding} onClick={onEnd}>
          {t('talk/endNow')}
        </Button>
        <Button variant="default" onClick={onClose}>
          {t('common/cancel')}
        </Button>
      </div>
    </Modal>
  );
}

function Over({ conversation, onAnew }: { conversation: Conversation; onAnew(): void }) {
  const { t } = useWords();
  const client = useQueryClient();
  const { id, endedBy, agent, mayComeBack, rating, ticket } = conversation;
  const deed = useDeed(id);
  const [word, setWord] = useState('');
  const rate = useMutation({
    mutationFn: (value: number) =>
      call(api.conversations.rate, { params: { id }, body: { rating: value, word }, key: nanoid() }),
    onSettled: () => client.invalidateQueries({ queryKey: ['conversation', id] }),
  });
  return (
    <div className={classes.end}>
      <p>
        {t(`talk/over/${endedBy ?? 'agent'}`, { name: agent?.name })}{' '}
        {ticket && (
          <Link to={`/ask/tickets/${ticket.number}`}>
            {t('talk/becameTicket', { number: ticket.number, title: ticket.title })}
          </Link>
        )}
      </p>
      {endedBy !== 'left' &&
        (rating === null ? (
          <>
            <Textarea
              size="xs"
              label={t('talk/word')}
              value={word}
              onChange={({ target }) => setWord(target.value)}
            />
            <Rating value={rate.variables ?? null} onChange={(value) => rate.mutate(value)} />
          </>
        ) : (
          <p role="status">{t('talk/thanks')}</p>
        ))}
      <div className={classes.row}>
        {mayComeBack && endedBy !== 'left' && (
          <Button variant="default" loading={deed.isPending} onClick={() => deed.mutate('comeBack')}>
            {t('talk/comeBack')}
          </Button>
        )}
        <Button variant="default" onClick={onAnew}>
          {t('talk/anew')}
        </Button>
        <a href={`/api/v1/conversations/${id}/transcript`} download>
          {t('talk/asText')}
        </a>
        <a href={`/api/v1/conversations/${id}/transcript?as=pdf`} download>
          {t('talk/asPdf')}
        </a>
      </div>
      {mayComeBack && endedBy !== 'left' && <p className={classes.quiet}>{t('talk/comeBackTill')}</p>}
      <ProblemNote error={deed.error ?? rate.error} />
    </div>
  );
}

function Talk({ conversation, onAnew }: { conversation: Conversation; onAnew(): void }) {
  const { t, local } = useWords();
  const waitWords = useWaitWords();
  const { id, state, agent, ahead, wait, line } = conversation;
  const [text, setText] = useDraft(`talk:${id}`, '');
  const [isEnding, setEnding] = useState(false);
  const deed = useDeed(id);
  const isWaiting = state === 'waiting' || state === 'offered';
  return (
    <div className={classes.conversation}>
      <div className={classes.status}>
        <div>
          <h1>{local(line.name)}</h1>
          <p role="status" className={classes.quiet}>
            {isWaiting
              ? t('talk/place', { place: ahead + 1, wait: waitWords(wait) })
              : state === 'open' && agent
                ? t('talk/withAgent', { name: agent.name })
                : ''}
          </p>
        </div>
        {state !== 'ended' && (
          <Button
            variant="default"
            size="compact-sm"
            onClick={() => (isWaiting ? deed.mutate('end') : setEnding(true))}
          >
            {t(isWaiting ? 'talk/leave' : 'talk/end')}
          </Button>
        )}
      </div>
      <Entries conversation={conversation} />
      {state === 'ended' ? (
        <Over conversation={conversation} onAnew={onAnew} />
      ) : (
        <SayForm id={id} label={t('talk/write')} text={text} onText={setText} />
      )}
      <ProblemNote error={deed.error} />
      {isEnding && state !== 'ended' && (
        <EndDialog
          isEnding={deed.isPending}
          onClose={() => setEnding(false)}
          onEnd={() => deed.mutate('end', { onSettled: () => setEnding(false) })}
        />
      )}
    </div>
  );
}

/** Asking for a person, and talking to them. */
export function PersonPage() {
  const { t } = useWords();
  const [id, setId] = useState<string | null>(null);
  const [isAnew, setAnew] = useState(false);
  const mine = useQuery({ queryKey: ['myConversation'], queryFn: () => call(api.conversations.mine) });
  const shownId = id ?? (isAnew ? null : (mine.data?.id ?? null));
  const conversation = useConversation(shownId);
  useConversationsLive(false);
  const said = conversation.data ? countSaid(conversation.data) : 0;
  useEffect(() => {
    if (shownId !== null) keepRead(shownId, said);
  }, [shownId, said]);
  const error = mine.error ?? conversation.error;
  if (error) return <ProblemNote error={error} onRetry={() => void mine.refetch()} />;
  if (mine.isPending || (shownId !== null && !conversation.data)) return <Waiting />;
  return (
    <div className={classes.page}>
      {shownId !== null && conversation.data ? (
        <Talk
          key={shownId}
          conversation={conversation.data}
          onAnew={() => {
            setId(null);
            setAnew(true);
          }}
        />
      ) : (
        <>
          <h1>{t('talk/title')}</h1>
          <Start
            onStarted={(started) => {
              setId(started);
              void mine.refetch();
            }}
          />
        </>
      )}
    </div>
  );
}
