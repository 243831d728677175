import { Button, Group, Modal, Stack } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import type { Ticket } from '../../contract/tickets';
import {
  checkAnswers,
  getShownFields,
  isNeeded,
  withoutFiles,
  type Answers,
  type FormDefinition,
} from '../../core/forms';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import { useRenew } from '../api/queries';
import { useDraft } from '../api/useDraft';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { FieldInput } from './FieldInput';

/** What was answered, to be changed; whoever agreed to it is then asked anew. */
export function AnswersForm({ ticket, onClose }: { ticket: Ticket; onClose(): void }) {
  const { t, local } = useWords();
  const renew = useRenew();
  const form = withoutFiles({ fields: ticket.questions } as FormDefinition);
  const known = Object.fromEntries(ticket.answers.map(({ field, value }) => [field.name, value])) as Answers;
  const [answers, setAnswers, clear] = useDraft<Answers>(`answers:${ticket.number}:${ticket.version}`, known);
  const problems = new Map(
    checkAnswers(form, answers).problems.map(({ field, code, limit, words }) => [
      field,
      words ? local(words) : t(`fields/${code}`, { limit }),
    ]),
  );
  const save = useMutation({
    mutationFn: () =>
      call(api.tickets.answers, {
        params: { number: ticket.number },
        body: { version: ticket.version, answers },
        key: nanoid(),
      }),
    onSuccess: () => {
      clear();
      notifications.show({ message: t('form/changed') });
      onClose();
    },
    onSettled: () => renew(ticket.number),
  });
  const isAgreed = ticket.approvals.some(({ outcome }) => outcome === 'approved' || outcome === 'open');
  return (
    <Modal opened onClose={onClose} size="lg" title={t('form/change')}>
      <Stack>
        {isAgreed && <span>{t('form/askedAnew')}</span>}
        {getShownFields(form, answers).map((field) => (
          <FieldInput
            key={field.name}
            {...{ field, value: answers[field.name], files: [], isFilled: false }}
            error={problems.get(field.name)}
            forPerson={ticket.requester.id}
            isNeeded={isNeeded(field, answers)}
            onFiles={() => undefined}
            onChange={(value) => setAnswers({ ...answers, [field.name]: value })}
          />
        ))}
        <ProblemNote error={save.error} />
        <Group>
          <Button disabled={problems.size > 0} loading={save.isPending} onClick={() => save.mutate()}>
            {t('common/save')}
          </Button>
          <Button variant="default" onClick={onClose}>
            {t('common/cancel')}
          </Button>
        </Group>
      </Stack>
    </Modal>
  );
}
