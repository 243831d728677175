import { Button, Group, NativeSelect, Pill, Select, TextInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState, type ReactNode } from 'react';
import { api } from '../../api/endpoints';
import type { BodyInputOf } from '../../../contract/endpoint';
import type { Ticket } from '../../../contract/tickets';
import {
  IMPACTS,
  PRIORITIES,
  URGENCIES,
  type Impact,
  type Priority,
  type Urgency,
} from '../../../core/tickets';
import { ApiProblem, call } from '../../api/call';
import { useRenew, useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { AnswersForm } from '../../form/AnswersForm';
import { AnswerValue } from '../../ui/AnswerValue';
import { Conflict } from '../../ui/Conflict';
import { FileList } from '../../files/FileList';
import { filesOf } from '../../files/filesOf';
import { openFile } from '../../files/openFile';
import { PersonName } from '../../ui/PersonName';
import { PersonPicker } from '../../ui/PersonPicker';
import { ProblemNote } from '../../ui/ProblemNote';
import { useProblems } from '../../ui/useProblems';
import { useTimes } from '../../ui/useTimes';
import { PastConversations } from '../people/PastConversations';
import { PersonTickets, usePersonCard } from '../people/PersonTickets';
import classes from './DeskTicket.module.css';
import { DueByHand } from './DueByHand';
import { OtherRequester, ServiceFact } from './Refile';

/** With the key that makes a repeated try one. */
type Change = Omit<BodyInputOf<typeof api.tickets.change>, 'version'> & { key: string };

function Pair({ name, children }: { name: string; children: ReactNode }) {
  return (
    <div className={classes.pair}>
      <span>{name}</span>
      <span>{children}</span>
    </div>
  );
}

/** Changes facts in place; someone else's change meanwhile is shown, not overwritten. */
function useChange(ticket: Ticket) {
  const renew = useRenew();
  return useMutation({
    mutationFn: ({ key, ...change }: Change) =>
      call(api.tickets.change, {
        params: { number: ticket.number },
        body: { ...change, version: ticket.version },
        key,
      }),
    onSettled: () => renew(ticket.number),
  });
}

function PriorityFacts({ ticket }: { ticket: Ticket }) {
  const { t } = useWords();
  const change = useChange(ticket);
  const [override, setOverride] = useState<Priority | null>(null);
  const [reason, setReason] = useState('');
  const problems = useProblems()(change.error);
  const { impact, urgency, priority, priorityReason } = ticket;
  const isStale = change.error instanceof ApiProblem && change.error.code === 'stale';
  const choose = (choices: readonly string[], group: string) =>
    choices.map((value) => ({ value, label: t(`${group}/${value}`) }));
  return (
    <div>
      <Pair name={t('page/impactUrgency')}>
        <b>{priority}</b>
        {priorityReason && (
          <div style={{ color: 'var(--muted)' }}>{t('page/overridden', { reason: priorityReason })}</div>
        )}
      </Pair>
      <Group gap={6} grow wrap="nowrap">
        <Select
          size="xs"
          aria-label={t('conflict/fields/impact')}
          allowDeselect={false}
          data={choose(IMPACTS, 'impacts')}
          value={impact}
          onChange={(value) => change.mutate({ impact: value as Impact, key: nanoid() })}
        />
        <Select
          size="xs"
          aria-label={t('conflict/fields/urgency')}
          allowDeselect={false}
          data={choose(URGENCIES, 'urgencies')}
          value={urgency}
          onChange={(value) => change.mutate({ urgency: value as Urgency, key: nanoid() })}
        />
      </Group>
      {ticket.rights.includes('work') && (
        <button
          type="button"
          className={classes.link}
          onClick={() => setOverride(override ? null : priority)}
        >
          <small>{t('page/override')}</small>
        </button>
      )}
      {override && (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            change.mutate(
              { priority: override, priorityReason: reason, key: nanoid() },
              { onSuccess: () => setOverride(null) },
            );
          }}
        >
          <Group gap={6} mt={6} align="flex-end" wrap="nowrap">
            <Select
              size="xs"
              w={62}
              label={t('conflict/fields/priority')}
              allowDeselect={false}
              data={[...PRIORITIES]}
              value={override}
              onChange={(value) => setOverride(value)}
            />
            <TextInput
              size="xs"
              style={{ flex: 1 }}
              label={t('page/overrideReason')}
              value={reason}
              error={problems.priorityReason}
              onChange={({ target }) => setReason(target.value)}
            />
            <Button size="xs" type="submit" loading={change.isPending}>
              {t('common/save')}
            </Button>
          </Group>
        </form>
      )}
      {change.error && !isStale && !problems.priorityReason && <ProblemNote error={change.error} />}
      <Conflict
        error={change.error}
        onKeepTheirs={() => change.reset()}
        onPutMine={() => change.mutate({ ...change.variables!, key: nanoid() })}
      />
    </div>
  );
}

/** Where it is about: what was guessed may be mended. */
function Place({ ticket }: { ticket: Ticket }) {
  const { t } = useWords();
  const change = useChange(ticket);
  const [place, setPlace] = useState(ticket.place);
  const isStale = change.error instanceof ApiProblem && change.error.code === 'stale';
  const put = () => {
    if (place.trim() !== '' && place.trim() !== ticket.place)
      change.mutate({ place: place.trim(), key: nanoid() });
  };
  if (!ticket.rights.includes('mend')) return <Pair name={t('page/place')}>{ticket.place}</Pair>;
  return (
    <Pair name={t('page/place')}>
      <TextInput
        size="xs"
        aria-label={t('page/place')}
        maxLength={255}
        value={place}
        onChange={({ target }) => setPlace(target.value)}
        onBlur={put}
        onKeyDown={({ key }) => {
          if (key === 'Enter') put();
          if (key === 'Escape') setPlace(ticket.place);
        }}
      />
      {!isStale && <ProblemNote error={change.error} />}
      <Conflict
        error={change.error}
        onKeepTheirs={() => change.reset()}
        onPutMine={() => change.mutate({ ...change.variables!, key: nanoid() })}
      />
    </Pair>
  );
}

/** How far it is, in the team's own words. */
function Progress({ ticket }: { ticket: Ticket }) {
  const { t, local } = useWords();
  const { data: teams = [] } = useTeams();
  const change = useChange(ticket);
  const labels = teams.find(({ id }) => id === ticket.team.id)?.progressLabels ?? [];
  if (labels.length === 0) return null;
  return (
    <Pair name={t('page/progress')}>
      <NativeSelect
        size="xs"
        aria-label={t('page/progress')}
        disabled={!ticket.rights.includes('work')}
        value={ticket.progress?.id ?? ''}
        data={[
          { value: '', label: t('page/noProgress') },
          ...labels.map(({ id, name, isFinished }) => ({
            value: id,
            label: `${local(name)}${isFinished ? ' ✓' : ''}`,
          })),
        ]}
        onChange={({ target }) => change.mutate({ progressId: target.value || null, key: nanoid() })}
      />
      <ProblemNote error={change.error} />
    </Pair>
  );
}

type Role = 'alsoTold' | 'collaborator';

function Followers({ ticket, role, label }: { ticket: Ticket; role: Role; label: string }) {
  const { t } = useWords();
  const renew = useRenew();
  const change = useMutation({
    mutationFn: ({ personId, isAdded }: { personId: string; isAdded: boolean }) =>
      call(isAdded ? api.tickets.follow : api.tickets.unfollow, {
        params: { number: ticket.number },
        body: { personId, role },
      }),
    onSettled: () => renew(ticket.number),
  });
  const people = role === 'alsoTold' ? ticket.alsoTold : ticket.collaborators;
  const mayChange = ticket.rights.includes('work');
  return (
    <div>
      <Group gap={6}>
        {people.map(({ id, name }) => (
          <Pill
            key={id}
            withRemoveButton={mayChange}
            removeButtonProps={{ 'aria-label': t('ticket/stopSharing', { name }) }}
            onRemove={() => change.mutate({ personId: id, isAdded: false })}
          >
            {name}
          </Pill>
        ))}
      </Group>
      {mayChange && (
        <PersonPicker label={label} onPick={({ id }) => change.mutate({ personId: id, isAdded: true })} />
      )}
    </div>
  );
}

/** What else is known of the requester, asked for when it is wanted. */
function MoreOfRequester({ id, number }: { id: string; number: number }) {
  const { t } = useWords();
  const { data, error } = usePersonCard(id);
  if (error) return <ProblemNote error={error} />;
  if (!data) return null;
  return (
    <>
      <Pair name={t('page/mail')}>
        <a href={`mailto:${data.email}`}>{data.email}</a>
      </Pair>
      <Pair name={t('page/department')}>{data.department}</Pair>
      <PersonTickets tickets={data.tickets.filter((ticket) => ticket.number !== number)} />
      {data.conversations.length > 0 && (
        <>
          <h3>{t('talk/desk/before')}</h3>
          <PastConversations conversations={data.conversations} />
        </>
      )}
    </>
  );
}

/** The person who has the need. */
export function Requester({ ticket, now }: { ticket: Ticket; now: number }) {
  const { t } = useWords();
  const times = useTimes();
  const [isMore, setMore] = useState(false);
  const { requester, number, rights } = ticket;
  return (
    <section aria-label={t('page/requester')}>
      <h2>
        <PersonName person={requester} />
      </h2>
      <Pair name={requester.title}>
        {requester.site}, {times.hour(now, requester.timeZone)}
      </Pair>
      {requester.vessel && <Pair name={t('page/vessel')}>{requester.vessel}</Pair>}
      {requester.device && <Pair name={t('page/device')}>{requester.device}</Pair>}
      {requester.manager && <Pair name={t('page/manager')}>{requester.manager}</Pair>}
      {requester.phone && <Pair name={t('page/phone')}>{requester.phone}</Pair>}
      <Pair name={t('page/openBesides')}>{requester.openBesides}</Pair>
      {rights.includes('work') && <OtherRequester key={requester.id} ticket={ticket} />}
      {rights.includes('note') && (
        <button
          type="button"
          className={classes.link}
          aria-expanded={isMore}
          onClick={() => setMore(!isMore)}
        >
          <small>{t(isMore ? 'page/lessOfThem' : 'page/moreOfThem')}</small>
        </button>
      )}
      {isMore && <MoreOfRequester id={requester.id} number={number} />}
    </section>
  );
}

/** All its files in one place. */
function Files({ ticket }: { ticket: Ticket }) {
  const { t } = useWords();
  const files = filesOf(ticket);
  if (files.length === 0) return null;
  return (
    <section>
      <h2>
        {t('words/files', { count: files.length })}
        {files.length > 1 && (
          <Button size="compact-xs" variant="subtle" onClick={() => openFile({ files, id: files[0]!.id })}>
            {t('words/lookThrough')}
          </Button>
        )}
      </h2>
      <FileList files={files} />
    </section>
  );
}

/** The facts of a ticket, editable where the viewer works on it. */
export function Facts({ ticket }: { ticket: Ticket }) {
  const { t, local } = useWords();
  const { team, group, assignee, via, rights, conversation } = ticket;
  // Long texts stand at the head of the thread.
  const answers = ticket.answers.filter(({ field }) => field.kind !== 'longText');
  const mayWork = rights.includes('work');
  const mayMend = rights.includes('mend');
  const missing = ticket.questions.filter(({ name }) => ticket.missing.includes(name));
  const [isChanging, setChanging] = useState(false);
  return (
    <>
      <section>
        <h2>{t('page/facts')}</h2>
        {mayWork && <ServiceFact ticket={ticket} />}
        {mayMend ? (
          <PriorityFacts ticket={ticket} />
        ) : (
          <Pair name={t('page/impactUrgency')}>{ticket.priority}</Pair>
        )}
        <DueByHand ticket={ticket} />
        <Pair name={t('page/team')}>
          {local(team.name)}
          {group && ` · ${group.name}`}
        </Pair>
        <Pair name={t('page/assignee')}>
          {assignee ? <PersonName person={assignee} /> : t('common/nobody')}
        </Pair>
        <Progress ticket={ticket} />
        <Place key={ticket.place} ticket={ticket} />
        <Pair name={t('page/door')}>
          {t(`doors/${via}`)}
          {conversation && (
            <>
              {conversation.room !== null && `, ${conversation.room}`} ·{' '}
              <a href={conversation.link}>{t('page/toConversation')}</a>
            </>
          )}
        </Pair>
      </section>
      {(answers.length > 0 || missing.length > 0) && (
        <section>
          <h2>
            {t('page/given')}
            {ticket.questions.length > 0 && mayMend && (
              <Button size="compact-xs" variant="subtle" onClick={() => setChanging(true)}>
                {t('form/changeSome')}
              </Button>
            )}
          </h2>
          {isChanging && <AnswersForm ticket={ticket} onClose={() => setChanging(false)} />}
          {answers.map((answer) => (
            <Pair key={answer.field.name} name={local(answer.field.label)}>
              <AnswerValue answer={answer} />
            </Pair>
          ))}
          {missing.map(({ name, label }) => (
            <Pair key={name} name={local(label)}>
              <i>{t('page/notSaid')}</i>
            </Pair>
          ))}
        </section>
      )}
      <Files ticket={ticket} />
      <section>
        <h2>{t('page/people')}</h2>
        <Followers ticket={ticket} role="alsoTold" label={t('page/tellToo')} />
        <Followers ticket={ticket} role="collaborator" label={t('page/askIn')} />
      </section>
    </>
  );
}
