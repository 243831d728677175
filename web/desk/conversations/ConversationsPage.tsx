import { isAgent } from '../../../core/rights';
import { Button, SegmentedControl } from '@mantine/core';
import { useState } from 'react';
import { Link, NavLink, useNavigate, useParams } from 'react-router';
import type { Conversation, ConversationShort } from '../../../contract/conversations';
import { useNow } from '../../api/clock';
import { useMe } from '../../api/queries';
import { useDraft } from '../../api/useDraft';
import '../../messages/listsWords';
import '../../messages/talkWords';
import { useWords } from '../../messages/useWords';
import { Entries } from '../../talk/Entries';
import { SayForm } from '../../talk/SayForm';
import { useAtDesk, useConversation, useDeed } from '../../talk/useConversation';
import { Lost } from '../../ui/Lost';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import { Waiting } from '../../ui/Waiting';
import { AgentSettings } from './AgentSettings';
import classes from './Conversations.module.css';
import { HandOver } from './HandOver';
import { Side } from './Side';

const MINUTE = 60_000;

/** Who waits for whom, and how long already. */
function useWaitsWords() {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(10_000);
  return ({ who, since }: ConversationShort['whoWaits']): string =>
    t(who === 'person' ? 'talk/desk/theyWait' : 'talk/desk/youWait', {
      time: times.span((now - since) / MINUTE),
    });
}

function Offer({ row }: { row: ConversationShort }) {
  const { t, local } = useWords();
  const navigate = useNavigate();
  const deed = useDeed(row.id);
  const now = useNow(1_000);
  const seconds = row.offeredUntil === null ? 0 : Math.max(0, Math.ceil((row.offeredUntil - now) / 1000));
  const facts = Object.entries(row.facts).map(([name, value]) => `${t(`talk/desk/facts/${name}`)} ${value}`);
  return (
    <li className={classes.offer}>
      <p>
        <b>{row.person.name}</b> <span>{t('talk/desk/offeredLeft', { seconds })}</span>
      </p>
      <small>
        {local(row.line)} · {facts.join(' · ')}
      </small>
      <p>
        <bdi>{row.lastWords}</bdi>
      </p>
      {row.handedBy && <small>{t('talk/desk/handedFrom', { name: row.handedBy })}</small>}
      <div className={classes.row}>
        <Button
          size="compact-sm"
          loading={deed.isPending}
          onClick={() =>
            deed.mutate('accept', { onSuccess: () => void navigate(`/desk/conversations/${row.id}`) })
          }
        >
          {t('talk/desk/accept')}
        </Button>
        <Button size="compact-sm" variant="default" onClick={() => deed.mutate('decline')}>
          {t('talk/desk/pass')}
        </Button>
        <Link to={`/desk/conversations/${row.id}`}>{t('talk/desk/readFirst')}</Link>
      </div>
      <ProblemNote error={deed.error} />
    </li>
  );
}

function Row({ row }: { row: ConversationShort }) {
  const { local } = useWords();
  const waitsWords = useWaitsWords();
  return (
    <li>
      <NavLink to={`/desk/conversations/${row.id}`} data-waits={row.isMine && row.whoWaits.who === 'person'}>
        <b>{row.person.name}</b>
        <small>
          {row.isMine ? waitsWords(row.whoWaits) : local(row.line)}
          {row.agent && !row.isMine && ` · ${row.agent}`}
        </small>
        <bdi>{row.lastWords}</bdi>
      </NavLink>
    </li>
  );
}

function Group({ title, rows }: { title: string; rows: ConversationShort[] }) {
  const { t } = useWords();
  return (
    <>
      <h2>{title}</h2>
      {rows.length === 0 && <p className={classes.quiet}>{t('talk/desk/none')}</p>}
      <ul>
        {rows.map((row) => (
          <Row key={row.id} row={row} />
        ))}
      </ul>
    </>
  );
}

function Open({ conversation }: { conversation: Conversation }) {
  const { t, local } = useWords();
  const me = useMe();
  const { id, person, line, state, agent, side } = conversation;
  const deed = useDeed(id);
  const [readBy, setReadBy] = useState<'all' | 'agents'>('all');
  const [text, setText] = useDraft(`talk:${id}:${readBy}`, '');
  const [isHanding, setHanding] = useState<'hand' | 'invite' | null>(null);
  const isIn = side!.isMine || side!.invited.some((each) => each.id === me.id);
  const to = isIn ? readBy : 'agents';
  return (
    <>
      <section className={classes.talk}>
        <header>
          <div>
            <h1>{person.name}</h1>
            <p className={classes.quiet}>
              {local(line.name)}
              {agent && !side!.isMine && ` · ${agent.name}`}
              {side!.invited.length > 0 && ` · ${side!.invited.map(({ name }) => name).join(', ')}`}
            </p>
          </div>
          <div className={classes.row}>
            {(side!.isOfferedToMe || (agent === null && state !== 'ended')) && (
              <>
                <Button size="compact-sm" loading={deed.isPending} onClick={() => deed.mutate('accept')}>
                  {t('talk/desk/accept')}
                </Button>
                {side!.isOfferedToMe && (
                  <Button size="compact-sm" variant="default" onClick={() => deed.mutate('decline')}>
                    {t('talk/desk/pass')}
                  </Button>
                )}
              </>
            )}
            {side!.isMine && state === 'open' && (
              <>
                <Button size="compact-sm" variant="default" onClick={() => setHanding('hand')}>
                  {t('talk/desk/hand')}
                </Button>
                <Button size="compact-sm" variant="default" onClick={() => setHanding('invite')}>
                  {t('talk/desk/invite')}
                </Button>
                <Button
                  size="compact-sm"
                  variant="default"
                  loading={deed.isPending}
                  onClick={() => deed.mutate('end')}
                >
                  {t('talk/endNow')}
                </Button>
              </>
            )}
          </div>
        </header>
        {side!.handedBy && <p>{t('talk/desk/handedBy', { name: side!.handedBy, why: side!.handedWhy })}</p>}
        <ProblemNote error={deed.error} />
        <Entries conversation={conversation} isAtDesk />
        {state !== 'ended' && (
          <>
            {isIn && (
              <SegmentedControl
                size="xs"
                w="fit-content"
                value={to}
                onChange={(value) => setReadBy(value)}
                data={[
                  { value: 'all', label: t('talk/desk/toAll', { name: person.name }) },
                  { value: 'agents', label: t('talk/desk/toAgents') },
                ]}
              />
            )}
            <SayForm
              key={to}
              id={id}
              readBy={to}
              label={
                to === 'all'
                  ? t('talk/desk/toAll', { name: person.name })
                  : t('talk/desk/besides', { name: person.name })
              }
              text={text}
              onText={setText}
            />
          </>
        )}
        {isHanding && <HandOver id={id} isInvite={isHanding === 'invite'} onClose={() => setHanding(null)} />}
      </section>
      <Side
        conversation={conversation}
        onInsert={(words) => setText(text.trim() === '' ? words : `${text}\n${words}`)}
      />
    </>
  );
}

/** Several conversations at once: what is offered, who waits, and the one that is open with all that helps. */
export function ConversationsPage() {
  const { t } = useWords();
  const me = useMe();
  const { id = null } = useParams();
  const { data, error } = useAtDesk();
  const opened = useConversation(id);
  if (!isAgent(me)) return <Lost />;
  if (error) return <ProblemNote error={error} />;
  if (!data) return <Waiting />;
  const offered = data.rows.filter(({ isOfferedToMe }) => isOfferedToMe);
  const mine = data.rows.filter(({ isMine, isOfferedToMe }) => isMine && !isOfferedToMe);
  const rest = data.rows.filter(({ isMine, isOfferedToMe }) => !isMine && !isOfferedToMe);
  // Who waits longest stands first.
  mine.sort(
    (a, b) =>
      Number(b.whoWaits.who === 'person') - Number(a.whoWaits.who === 'person') ||
      a.whoWaits.since - b.whoWaits.since,
  );
  return (
    <div className={classes.page}>
      <nav className={classes.rows} aria-label={t('talk/desk/title')}>
        <AgentSettings agent={data.agent} />
        {offered.length > 0 && (
          <>
            <h2>{t('talk/desk/offered')}</h2>
            <ul>
              {offered.map((row) => (
                <Offer key={row.id} row={row} />
              ))}
            </ul>
          </>
        )}
        <Group title={t('talk/desk/mine')} rows={mine} />
        <Group title={t('talk/desk/line')} rows={rest} />
        {me.teams.some(({ role }) => role === 'lead') && (
          <p>
            <Link to="/desk/conversations/overview">{t('talk/desk/overview')}</Link>
          </p>
        )}
      </nav>
      {id === null ? (
        <section className={classes.talk}>
          <h1>{t('talk/desk/title')}</h1>
          <p className={classes.quiet}>{t('talk/desk/lead')}</p>
          <p className={classes.quiet}>{t('talk/desk/choose')}</p>
        </section>
      ) : opened.error ? (
        <Lost />
      ) : opened.data?.side ? (
        <Open key={id} conversation={opened.data} />
      ) : (
        <Waiting />
      )}
    </div>
  );
}
