import { Button, Group, Pill } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { lazy, Suspense, useState } from 'react';
import { Link, useParams } from 'react-router';
import { api } from '../../api/endpoints';
import type { Ticket } from '../../../contract/tickets';
import type { MoveName } from '../../../core/tickets';
import { ApiProblem, call } from '../../api/call';
import { useNow } from '../../api/clock';
import { useMe, useRenew, useTicket } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { AnswerValue } from '../../ui/AnswerValue';
import { Composer } from '../../thread/Composer';
import { Lost } from '../../ui/Lost';
import { FileList } from '../../files/FileList';
import { MessageBody } from '../../thread/MessageBody';
import { MoveForm } from '../../ui/MoveForm';
import { PersonPicker } from '../../ui/PersonPicker';
import { ProblemNote } from '../../ui/ProblemNote';
import { useDelayWords, useEntryWords } from '../../ui/useEntryWords';
import { getPromise } from '../../ui/clocks';
import { useTimes } from '../../ui/useTimes';
import { Waiting } from '../../ui/Waiting';
import { PlanOverview } from '../../plan/PlanOverview';
import { AnswersForm } from '../../form/AnswersForm';
import { usePromise, useSentence } from '../useSentence';
import classes from './MyTicket.module.css';
import { useLegWords } from './useLegWords';
import { Contained } from '../../ui/Contained';

const Reckoning = lazy(() =>
  import('../../ui/Reckoning').then(({ Reckoning: table }) => ({ default: table })),
);

function approversOf({ approvals }: Ticket): string[] {
  return approvals
    .filter(({ outcome }) => outcome === 'open')
    .flatMap(({ asks }) => asks.filter(({ decision }) => !decision).map(({ asked }) => asked.name));
}

/** Where it stands, in one sentence, with what is asked of the requester now. */
function Standing({ ticket }: { ticket: Ticket }) {
  const { t, local } = useWords();
  const times = useTimes();
  const now = useNow(30_000);
  const isWorkedOn = ticket.state === 'received' || ticket.state === 'inWork';
  // Of a plan one says which part of it is under way, not which team holds the ticket.
  const leg = isWorkedOn
    ? ticket.plan?.legs.find(({ steps }) => steps.some(({ state }) => state === 'active'))
    : null;
  const approvers = approversOf(ticket);
  const sentence = useSentence()({ ...ticket, approvers });
  const legWords = useLegWords()(leg, approvers);
  const { words, isLate } = usePromise()({ ...ticket, promisedAt: ticket.plan?.promisedAt ?? null });
  // Of a plan the end is told by its steps, on the page beside.
  const reckoned = ticket.plan ? null : getPromise(ticket.clocks);
  const [isAsked, setIsAsked] = useState(false);
  const [open, setOpen] = useState<MoveName | null>(null);
  const isMine = ticket.moves.some(({ by }) => by === 'requester');
  const question = ticket.state === 'held' && ticket.heldFor === 'requester' ? ticket.heldReason : null;
  return (
    <section
      className={classes.sentence}
      data-late={isLate || undefined}
      aria-label={t(`states/${ticket.state}`)}
    >
      {leg ? legWords : sentence}
      {ticket.progress && ` · ${local(ticket.progress.name)}`}
      {words && (
        <small>
          {words}
          {reckoned && (
            <>
              {' · '}
              <button type="button" className={classes.why} onClick={() => setIsAsked(true)}>
                {t('page/whyThisTime')}
              </button>
            </>
          )}
        </small>
      )}
      {reckoned && isAsked && (
        <Suspense>
          <Reckoning number={ticket.number} clock={reckoned} onClose={() => setIsAsked(false)} />
        </Suspense>
      )}
      {question && (
        <div className={classes.question}>
          <bdi>{question}</bdi>
        </div>
      )}
      {ticket.state === 'done' && isMine && (
        <>
          {ticket.closesAt !== null && (
            <small>{t('ticket/closesAt', { when: times.when(ticket.closesAt, now) })}</small>
          )}
          {open === null ? (
            <Group mt="sm" gap="xs">
              <Button onClick={() => setOpen('confirm')}>{t('ticket/yesDone')}</Button>
              <Button variant="default" onClick={() => setOpen('reopen')}>
                {t(ticket.kind === 'request' ? 'ticket/notYet' : 'ticket/stillBroken')}
              </Button>
            </Group>
          ) : (
            <div style={{ marginTop: 12, fontSize: 14 }}>
              <MoveForm
                key={open}
                ticket={ticket}
                name={open}
                by="requester"
                requesterName={ticket.requester.name}
                takesFocus
                onClose={() => setOpen(null)}
              />
            </div>
          )}
        </>
      )}
    </section>
  );
}

function Thread({ ticket }: { ticket: Ticket }) {
  const { t } = useWords();
  const times = useTimes();
  const me = useMe();
  const now = useNow(60_000);
  const wordsOf = useEntryWords(me.id);
  const delayOf = useDelayWords();
  return (
    <ol className={classes.thread}>
      {ticket.entries.map((entry) => {
        const { id, at, message, actor, via } = entry;
        const words = wordsOf(entry);
        if (!message)
          return words && <li key={id} className={classes.event}>{`${times.when(at, now)} · ${words}`}</li>;
        return (
          <li key={id}>
            <div className={classes.who}>
              <b>{actor?.id === me.id ? t('common/you') : actor?.name}</b> · {times.when(at, now)} ·{' '}
              {[
                t('entries/via', { door: t(`doors/${via}`) }),
                entry.type === 'answered' ? null : words,
                delayOf(entry),
              ]
                .filter(Boolean)
                .join(' · ')}
            </div>
            <div className={classes.words} data-team={message.isByTeam || undefined}>
              <Contained>
                <MessageBody message={message} base="/ask/tickets" />
              </Contained>
            </div>
          </li>
        );
      })}
    </ol>
  );
}

/** What one answered, as long as it is open to be changed. */
function Changing({ ticket }: { ticket: Ticket }) {
  const { t, local } = useWords();
  const [isOpen, setOpen] = useState(false);
  const missing = ticket.questions.filter(({ name }) => ticket.missing.includes(name));
  if (ticket.questions.length === 0 || !ticket.rights.includes('own')) return null;
  return (
    <>
      {missing.length > 0 && (
        <p role="note">
          {t('form/missing', { questions: missing.map(({ label }) => local(label)).join(' · ') })}
        </p>
      )}
      <Button
        size="compact-sm"
        variant="subtle"
        ms={-8}
        style={{ justifySelf: 'start' }}
        onClick={() => setOpen(true)}
      >
        {t(missing.length > 0 ? 'form/answerMissing' : 'form/change')}
      </Button>
      {isOpen && <AnswersForm ticket={ticket} onClose={() => setOpen(false)} />}
    </>
  );
}

/** Who else follows it, and sharing it with one more. */
function Sharing({ ticket }: { ticket: Ticket }) {
  const { t } = useWords();
  const renew = useRenew();
  const change = useMutation({
    mutationFn: ({ personId, isAdded }: { personId: string; isAdded: boolean }) =>
      call(isAdded ? api.tickets.follow : api.tickets.unfollow, {
        params: { number: ticket.number },
        body: { personId, role: 'alsoTold' },
      }),
    onSettled: () => renew(ticket.number),
  });
  return (
    <div>
      <PersonPicker
        label={t('ticket/share')}
        description={t('ticket/shareHelp')}
        onPick={({ id }) => change.mutate({ personId: id, isAdded: true })}
      />
      <Group gap={6} mt={6}>
        {ticket.alsoTold.map(({ id, name }) => (
          <Pill
            key={id}
            withRemoveButton
            removeButtonProps={{ 'aria-label': t('ticket/stopSharing', { name }) }}
            onRemove={() => change.mutate({ personId: id, isAdded: false })}
          >
            {name}
          </Pill>
        ))}
      </Group>
      {change.error && <ProblemNote error={change.error} />}
    </div>
  );
}

/** Withdrawing cannot be undone, so it asks. */
function Withdraw({ ticket }: { ticket: Ticket }) {
  const { t } = useWords();
  const [isOpen, setOpen] = useState(false);
  if (isOpen)
    return (
      <MoveForm
        ticket={ticket}
        name="withdraw"
        by="requester"
        requesterName={ticket.team.name.en}
        onClose={() => setOpen(false)}
      />
    );
  return (
    <div>
      <Button variant="default" size="compact-md" onClick={() => setOpen(true)}>
        {t('ticket/withdraw')}
      </Button>
    </div>
  );
}

function Page({ ticket }: { ticket: Ticket }) {
  const { t, local } = useWords();
  const { number, title, service, team, raisedBy, rights, moves, answers, files } = ticket;
  const top = [
    t('ticket/number', { number }),
    local(service.title),
    t('ticket/withTeam', { team: local(team.name) }),
  ];
  return (
    <div className={classes.page}>
      <Link to="/ask">{t('common/back')}</Link>
      <p className={classes.top}>
        {top.join(' · ')}
        {raisedBy && ` · ${t('ticket/raisedBy', { name: raisedBy.name })}`}
      </p>
      <h1>
        <bdi>{title}</bdi>
      </h1>
      <Standing ticket={ticket} />
      {ticket.plan && <PlanOverview plan={ticket.plan} />}
      <Thread ticket={ticket} />
      {rights.includes('write') && (
        <Composer
          {...{
            number,
            readBy: 'requester',
            sendLabel: t('common/send'),
            placeholder: t('ticket/writePlaceholder'),
          }}
          label={t('ticket/write', { who: ticket.assignee?.name ?? local(team.name) })}
        />
      )}
      <div className={classes.side}>
        <Changing ticket={ticket} />
        {rights.includes('own') && (
          <Link to={`/ask/services/${ticket.service.id}?like=${ticket.number}`}>{t('ticket/sameAgain')}</Link>
        )}
        {rights.includes('own') && <Sharing ticket={ticket} />}
        {answers.length > 0 && (
          <section>
            <strong>{t('ticket/whatYouSaid')}</strong>
            <dl className={classes.given}>
              {answers.map((answer) => (
                <div key={answer.field.name} style={{ display: 'contents' }}>
                  <dt>{local(answer.field.label)}</dt>
                  <dd>
                    <AnswerValue answer={answer} />
                  </dd>
                </div>
              ))}
            </dl>
            <FileList files={files} />
          </section>
        )}
        {moves.some(({ name, by }) => name === 'withdraw' && by === 'requester') && (
          <Withdraw ticket={ticket} />
        )}
      </div>
    </div>
  );
}

/** The requester's page of a ticket. */
export function MyTicket() {
  const { number = '' } = useParams();
  const { data, error, isPending, refetch } = useTicket(Number(number));
  if (isPending) return <Waiting />;
  if (error instanceof ApiProblem && ['notFound', 'fieldsNotValid'].includes(error.code)) return <Lost />;
  if (!data) return <ProblemNote error={error} onRetry={() => void refetch()} />;
  return <Page ticket={data} />;
}
