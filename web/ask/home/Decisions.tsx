import { Button, Group, Textarea } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { Link } from 'react-router';
import { api } from '../../api/endpoints';
import type { Ask } from '../../../contract/approvals';
import { call } from '../../api/call';
import { useNow } from '../../api/clock';
import { useAsks, useMe, useRenew } from '../../api/queries';
import { useDraft } from '../../api/useDraft';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useMoney } from '../../ui/useMoney';
import { useTimes } from '../../ui/useTimes';
import classes from './Decisions.module.css';
import home from './Home.module.css';

function Decision({ ask }: { ask: Ask }) {
  const { t, local } = useWords();
  const times = useTimes();
  const money = useMoney();
  const now = useNow(60_000);
  const renew = useRenew();
  const me = useMe();
  const [isDeclining, setDeclining] = useState(false);
  const [words, setWords, clearWords] = useDraft(`ask:${ask.id}`, '');
  const decide = useMutation({
    mutationFn: ({ decision, key }: { decision: 'approve' | 'decline'; key: string }) =>
      call(api.approvals.decide, {
        params: { id: ask.id },
        body: { decision, words: decision === 'decline' ? words : '' },
        key,
      }),
    onSuccess: (_, { decision }) => {
      clearWords();
      notifications.show({
        message: t(decision === 'approve' ? 'approvals/approved' : 'approvals/declined', {
          title: ask.title,
        }),
      });
    },
    onSettled: () => renew(ask.number),
  });
  const say = (decision: 'approve' | 'decline'): void => decide.mutate({ decision, key: nanoid() });
  return (
    <article className={classes.ask} aria-label={ask.title}>
      <strong>
        <bdi>{ask.requester.name}</bdi>: <Link to={`/ask/tickets/${ask.number}`}>{ask.title}</Link>
      </strong>
      <div className={classes.facts}>
        <span>{local(ask.service)}</span>
        <b>{ask.cost === null ? t('approvals/noCost') : t('service/cost', { amount: money(ask.cost) })}</b>
        <span>
          {ask.voter.id === me.id
            ? t(`approvals/why/${ask.reason}`)
            : t('approvals/inPlaceOf', { name: ask.voter.name })}
        </span>
        <span>{t('ask/since', { span: times.span((now - ask.since) / 60_000, 24) })}</span>
        {ask.dueAt !== null && (
          <span data-late={ask.dueAt < now || undefined}>
            {t('approvals/by', { when: times.when(ask.dueAt, now) })}
          </span>
        )}
        {ask.answers.map(({ label, value }) => (
          <span key={label.en}>
            {local(label)} <b>{value}</b>
          </span>
        ))}
      </div>
      {isDeclining && (
        <Textarea
          autosize
          autoFocus
          mb="xs"
          minRows={2}
          label={t('approvals/reason', { name: ask.requester.name })}
          value={words}
          onChange={({ target }) => setWords(target.value)}
        />
      )}
      {decide.error && <ProblemNote error={decide.error} />}
      <Group gap="xs">
        {!isDeclining && (
          <Button size="xs" loading={decide.isPending} onClick={() => say('approve')}>
            {t('approvals/approve')}
          </Button>
        )}
        <Button
          size="xs"
          variant="default"
          disabled={decide.isPending || (isDeclining && words.trim() === '')}
          onClick={() => (isDeclining ? say('decline') : setDeclining(true))}
        >
          {t(isDeclining ? 'approvals/declineSend' : 'approvals/decline')}
        </Button>
        {isDeclining && (
          <Button size="xs" variant="subtle" onClick={() => setDeclining(false)}>
            {t('common/cancel')}
          </Button>
        )}
      </Group>
    </article>
  );
}

/** What waits for one's decision, each with who asks, for what, what it costs and why it comes to one. */
export function Decisions() {
  const { t } = useWords();
  const { data = [] } = useAsks();
  if (data.length === 0) return null;
  return (
    <section aria-label={t('approvals/title')}>
      <h2 className={home.section}>{t('approvals/title')}</h2>
      {data.map((ask) => (
        <Decision key={ask.id} ask={ask} />
      ))}
    </section>
  );
}
