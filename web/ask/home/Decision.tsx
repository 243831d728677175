import { Button, Checkbox, Group, Textarea } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { Link } from 'react-router';
import { api } from '../../api/endpoints';
import type { Ask } from '../../../contract/approvals';
import { isPast } from '../../../core/due';
import { call } from '../../api/call';
import { useNow } from '../../api/clock';
import { useMe, useRenew } from '../../api/queries';
import { useDraft } from '../../api/useDraft';
import { useWords } from '../../messages/useWords';
import { AnswerValue } from '../../ui/AnswerValue';
import { ProblemNote } from '../../ui/ProblemNote';
import { useMoney } from '../../ui/useMoney';
import { useTimes } from '../../ui/useTimes';
import classes from './Decisions.module.css';

type Props = { ask: Ask; isChosen: boolean; onChoose: ((isChosen: boolean) => void) | null };

/** One ask with what is needed to decide it: yes, no with a reason, or a question first. */
export function Decision({ ask, isChosen, onChoose }: Props) {
  const { t, local } = useWords();
  const times = useTimes();
  const money = useMoney();
  const now = useNow(60_000);
  const renew = useRenew();
  const me = useMe();
  const [saying, setSaying] = useState<'decline' | 'question' | null>(null);
  const isDeclining = saying === 'decline';
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
  const asking = useMutation({
    mutationFn: (key: string) =>
      call(api.approvals.askBack, { params: { id: ask.id }, body: { words }, key }),
    onSuccess: () => {
      clearWords();
      setSaying(null);
      notifications.show({ message: t('approvals/questionSent', { name: ask.requester.name }) });
    },
    onSettled: () => renew(ask.number),
  });
  const say = (decision: 'approve' | 'decline'): void => decide.mutate({ decision, key: nanoid() });
  return (
    <article id={`ask-${ask.id}`} tabIndex={-1} className={classes.ask} aria-label={ask.title}>
      {onChoose && (
        <Checkbox
          className={classes.choose ?? ''}
          size="xs"
          checked={isChosen}
          aria-label={t('approvals/choose', { title: ask.title })}
          onChange={({ target }) => onChoose(target.checked)}
        />
      )}
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
          <span data-late={isPast(ask.dueAt, now) || undefined}>
            {t('approvals/by', { when: times.when(ask.dueAt, now) })}
          </span>
        )}
        {ask.changed.length > 0 && (
          <b>{t('approvals/changed', { fields: ask.changed.map(local).join(', ') })}</b>
        )}
        {ask.answers.map((answer) => (
          <span key={answer.field.name}>
            {local(answer.field.label)}{' '}
            <b>
              <AnswerValue answer={answer} />
            </b>
          </span>
        ))}
      </div>
      {ask.questionAt !== null && (
        <p className={classes.waits}>{t('approvals/waitsForAnswer', { name: ask.requester.name })}</p>
      )}
      {saying && (
        <Textarea
          autosize
          autoFocus
          mb="xs"
          minRows={2}
          label={t(isDeclining ? 'approvals/reason' : 'approvals/question', { name: ask.requester.name })}
          value={words}
          onChange={({ target }) => setWords(target.value)}
        />
      )}
      <ProblemNote error={decide.error ?? asking.error} />
      <Group gap="xs">
        {!saying && (
          <>
            <Button size="xs" loading={decide.isPending} onClick={() => say('approve')}>
              {t('approvals/approve')}
            </Button>
            <Button
              size="xs"
              variant="default"
              disabled={decide.isPending}
              onClick={() => setSaying('decline')}
            >
              {t('approvals/decline')}
            </Button>
            <Button size="xs" variant="default" onClick={() => setSaying('question')}>
              {t('approvals/askBack')}
            </Button>
          </>
        )}
        {saying && (
          <>
            <Button
              size="xs"
              disabled={words.trim() === ''}
              loading={decide.isPending || asking.isPending}
              onClick={() => (isDeclining ? say('decline') : asking.mutate(nanoid()))}
            >
              {t(isDeclining ? 'approvals/declineSend' : 'approvals/questionSend')}
            </Button>
            <Button size="xs" variant="subtle" onClick={() => setSaying(null)}>
              {t('common/cancel')}
            </Button>
          </>
        )}
      </Group>
    </article>
  );
}
