import { Button } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState, type ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import type { Thing } from '../../contract/estate';
import { ApiProblem, call } from '../api/call';
import { api } from '../api/endpoints';
import { useNow } from '../api/clock';
import { useWords } from '../messages/useWords';
import { AnswerValue } from '../ui/AnswerValue';
import { Lost } from '../ui/Lost';
import { PersonName } from '../ui/PersonName';
import { ProblemNote } from '../ui/ProblemNote';
import { useMoney } from '../ui/useMoney';
import { useTimes } from '../ui/useTimes';
import { Waiting } from '../ui/Waiting';
import { Acts } from './Acts';
import { CodeLabel } from './CodeLabel';
import classes from './Estate.module.css';
import { useMe } from '../api/queries';
import { ServiceTime } from './ServiceTime';
import { EstateFrame } from './EstateFrame';
import { Hangs } from './Hangs';
import { History } from './History';
import { ThingEditor } from './ThingEditor';
import { Day, LentUntil, WarrantyUntil } from './untils';
import { useRenewThings, useThing } from './useThings';

function Pair({ name, children }: { name: string; children: ReactNode }) {
  if (children === null || children === '' || children === undefined || children === false) return null;
  return (
    <div className={classes.pair}>
      <span>{name}</span>
      <span>{children}</span>
    </div>
  );
}

/** What its holder says of it, until somebody has dealt with it. */
function Claim({ thing }: { thing: Thing }) {
  const { t } = useWords();
  const renew = useRenewThings();
  const { id, version, claim, holder, mayKeep } = thing;
  const settle = useMutation({
    mutationFn: () => call(api.estate.settle, { params: { id }, body: { version }, key: nanoid() }),
    onSuccess: () => notifications.show({ message: t('estate/settled') }),
    onSettled: renew,
  });
  if (!claim) return null;
  return (
    <div className={classes.band} role="status">
      <strong>{t(`estate/claims/${claim}`, { who: holder?.name ?? t('estate/nobody') })}</strong>
      {mayKeep && (
        <Button
          size="compact-sm"
          variant="default"
          loading={settle.isPending}
          onClick={() => settle.mutate()}
        >
          {t('estate/settle')}
        </Button>
      )}
      <ProblemNote error={settle.error} />
    </div>
  );
}

/** Who has it, and whether they said so. */
function Holder({ thing, now }: { thing: Thing; now: number }) {
  const { t } = useWords();
  const times = useTimes();
  const { holder, handedAt, confirmedAt, lentUntil } = thing;
  if (!holder && !thing.isHandedOut) return null;
  if (!holder) return <Pair name={t('estate/fields/holderId')}>{t('estate/nobody')}</Pair>;
  return (
    <Pair name={t('estate/fields/holderId')}>
      <PersonName person={holder} />
      <LentUntil at={lentUntil} now={now} />
      {handedAt !== null && (
        <div className={classes.quiet}>
          {confirmedAt === null
            ? t('estate/notConfirmed', { when: times.when(handedAt, now) })
            : t('estate/confirmed', { when: times.when(confirmedAt, now) })}
        </div>
      )}
    </Pair>
  );
}

function Facts({ thing }: { thing: Thing }) {
  const { t, local } = useWords();
  const times = useTimes();
  const money = useMoney();
  const now = useNow(60_000);
  const [isEditing, setEditing] = useState(false);
  const { cost, worth, boughtOn, warrantyUntil, seenAt, owner, team, site, vessel } = thing;
  const texts = (['tag', 'model', 'serial'] as const).map((field) => (
    <Pair key={field} name={t(`estate/fields/${field}`)}>
      {thing[field]}
    </Pair>
  ));
  return (
    <section className={classes.section} aria-labelledby="facts">
      <h2 id="facts">
        {t('estate/facts')}
        {thing.mayKeep && (
          <Button size="compact-xs" variant="subtle" onClick={() => setEditing(true)}>
            {t('estate/edit')}
          </Button>
        )}
        <CodeLabel thing={thing} />
      </h2>
      {isEditing && <ThingEditor thing={thing} onClose={() => setEditing(false)} />}
      <Holder {...{ thing, now }} />
      <Pair name={t('estate/fields/siteId')}>{[site?.name, thing.place].filter(Boolean).join(', ')}</Pair>
      <Pair name={t('estate/fields/vessel')}>{vessel && `MV ${vessel}`}</Pair>
      <Pair name={t('estate/fields/ownerId')}>{owner && <PersonName person={owner} />}</Pair>
      <Pair name={t('estate/fields/teamId')}>{team && local(team.name)}</Pair>
      {texts}
      {thing.answers.map((answer) => (
        <Pair key={answer.field.name} name={local(answer.field.label)}>
          <AnswerValue answer={answer} />
        </Pair>
      ))}
      <Pair name={t('estate/fields/warrantyUntil')}>
        {warrantyUntil && <WarrantyUntil day={warrantyUntil} now={now} />}
      </Pair>
      <Pair name={t('estate/fields/contract')}>{thing.contract}</Pair>
      <Pair name={t('estate/fields/boughtOn')}>{boughtOn && <Day day={boughtOn} />}</Pair>
      <Pair name={t('estate/figure/cost')}>{cost !== null && money(cost)}</Pair>
      <Pair name={t('estate/fields/worth')}>{worth !== null && money(worth)}</Pair>
      <Pair name={t('estate/fields/seen')}>{seenAt !== null && times.when(seenAt, now)}</Pair>
      {thing.isWatched && <p className={classes.quiet}>{t('estate/fields/isWatched')}</p>}
    </section>
  );
}

function Tickets({ thing: { tickets, ticketCount } }: { thing: Thing }) {
  const { t } = useWords();
  const times = useTimes();
  return (
    <section className={classes.section} aria-labelledby="tickets">
      <h2 id="tickets">{t('estate/tickets')}</h2>
      {tickets.length === 0 && <p className={classes.quiet}>{t('estate/noTickets')}</p>}
      <ul className={classes.list}>
        {tickets.map(({ number, title, state, at, how }) => (
          <li key={number}>
            <Link to={`/desk/everything/${number}`}>
              {number} <bdi>{title}</bdi>
            </Link>
            <small>
              {t(`states/${state}`)} · {times.day(at)}
              {how === 'cause' && ` · ${t('estate/cause')}`}
            </small>
          </li>
        ))}
      </ul>
      {ticketCount > tickets.length && (
        <p className={classes.quiet}>{t('estate/andMore', { count: ticketCount - tickets.length })}</p>
      )}
    </section>
  );
}

/** One thing: what happens if it fails, who has it, what is known of it, and what has been. */
export function ThingPage() {
  const { id } = useParams();
  const { t, local } = useWords();
  const me = useMe();
  const { data: thing, error, refetch } = useThing(id!);
  if (error instanceof ApiProblem && error.code === 'notFound') return <Lost />;
  if (!thing) return error ? <ProblemNote error={error} onRetry={() => void refetch()} /> : <Waiting />;
  const lead = [local(thing.kind), thing.tag, t(`estate/states/${thing.state}`)].filter(Boolean).join(' · ');
  return (
    <EstateFrame
      title={thing.name}
      lead={lead}
      actions={
        me.teams.length > 0 && (
          <Link
            to={`/estate/notices?${new URLSearchParams({ new: '1', thing: thing.id, name: thing.name }).toString()}`}
          >
            {t('estate/time/notice')}
          </Link>
        )
      }
    >
      <Claim thing={thing} />
      <Acts thing={thing} />
      <div className={classes.sides}>
        <div>
          <Hangs thing={thing} />
          {thing.isWatched && <ServiceTime thing={thing} />}
          <Tickets thing={thing} />
          <History history={thing.history} />
        </div>
        <div>
          <Facts thing={thing} />
        </div>
      </div>
    </EstateFrame>
  );
}
