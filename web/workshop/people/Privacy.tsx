import { Anchor, Button, Modal, Text, Textarea, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { KeptPerson } from '../../../contract/organisation';
import type { ErasureCounts } from '../../../contract/privacy';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useProblems } from '../../ui/useProblems';
import { Waiting } from '../../ui/Waiting';
import classes from '../Workshop.module.css';
import { useRenewPeople } from './usePeople';

const COUNTED: (keyof ErasureCounts)[] = [
  'tickets',
  'messages',
  'files',
  'conversations',
  'mails',
  'entries',
];

/** Erases somebody: what goes is said, and the name is typed, since nothing brings it back. */
function Erase({ person: { id, name }, onClose }: { person: KeptPerson; onClose(): void }) {
  const { t } = useWords();
  const toProblems = useProblems();
  const renew = useRenewPeople();
  const form = useForm({ initialValues: { name: '', reason: '' } });
  const counts = useQuery({
    queryKey: ['privacy', id],
    queryFn: () => call(api.privacy.counts, { params: { id } }),
  });
  const erase = useMutation({
    mutationFn: (body: { name: string; reason: string }) => call(api.privacy.erase, { params: { id }, body }),
    onSuccess: async () => {
      notifications.show({ message: t('people/privacy/erased') });
      onClose();
      await renew();
    },
    onError: (error) => form.setErrors(toProblems(error)),
  });
  return (
    <Modal
      {...{ opened: true, onClose, title: t('people/privacy/erase', { name }) }}
      closeButtonProps={{ 'aria-label': t('common/close') }}
    >
      <form onSubmit={form.onSubmit((body) => erase.mutate(body))}>
        <Text size="sm">{t('people/privacy/what')}</Text>
        <ProblemNote error={counts.error} onRetry={() => void counts.refetch()} />
        {counts.isPending && <Waiting />}
        {counts.data && (
          <ul>
            {COUNTED.map((each) => (
              <li key={each}>{t(`people/privacy/counts/${each}`, { count: counts.data[each] })}</li>
            ))}
          </ul>
        )}
        <Textarea autosize label={t('people/privacy/reason')} {...form.getInputProps('reason')} />
        <TextInput mt="sm" label={t('people/privacy/typeName', { name })} {...form.getInputProps('name')} />
        {Object.keys(form.errors).length === 0 && <ProblemNote error={erase.error} />}
        <Button
          {...{ type: 'submit', mt: 'md', color: 'var(--brick)', loading: erase.isPending }}
          disabled={form.values.name.trim() !== name || form.values.reason.trim() === ''}
        >
          {t('people/privacy/eraseNow')}
        </Button>
      </form>
    </Modal>
  );
}

/** What is known of somebody, as one archive; and erasing who has left. */
export function Privacy({ person }: { person: KeptPerson }) {
  const { t } = useWords();
  const [isErasing, setErasing] = useState(false);
  return (
    <section className={classes.section} aria-labelledby="person-privacy">
      <h2 id="person-privacy">{t('people/privacy/title')}</h2>
      <Anchor size="sm" href={`/api/v1/workshop/people/${person.id}/archive`} download>
        {t('people/privacy/archive')}
      </Anchor>
      <Text size="sm" c="var(--muted)" my={6}>
        {t(person.leftAt === null ? 'people/privacy/leaveFirst' : 'people/privacy/canErase')}
      </Text>
      {person.leftAt !== null && (
        <Button size="xs" variant="default" onClick={() => setErasing(true)}>
          {t('people/privacy/open')}
        </Button>
      )}
      {isErasing && <Erase person={person} onClose={() => setErasing(false)} />}
    </section>
  );
}
