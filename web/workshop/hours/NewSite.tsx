import { Button, Modal, Select, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { notifications } from '@mantine/notifications';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useMe } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useProblems } from '../../ui/useProblems';
import { useCalendarList } from '../queries';

const ZONES = Intl.supportedValuesOf('timeZone');

/** A new site, in the zone of whoever makes it until another is chosen. */
export function NewSite({ onClose }: { onClose(): void }) {
  const { t } = useWords();
  const { timeZone } = useMe();
  const client = useQueryClient();
  const toProblems = useProblems();
  const { data: calendars = [] } = useCalendarList();
  const form = useForm({ initialValues: { name: '', timeZone, calendarId: calendars[0]?.id ?? '' } });
  const [key] = useState(() => nanoid());
  const make = useMutation({
    mutationFn: (body: typeof form.values) => call(api.organisation.createSite, { body, key }),
    onSuccess: async (_, { name }) => {
      notifications.show({ message: t('workshop/team/siteMade', { name }) });
      await client.invalidateQueries({ queryKey: ['sites'] });
      onClose();
    },
    onError: (error) => form.setErrors(toProblems(error)),
  });
  return (
    <Modal opened onClose={onClose} title={t('workshop/team/newSite').replace(' …', '')}>
      <form onSubmit={form.onSubmit((values) => make.mutate(values))}>
        <TextInput data-autofocus label={t('workshop/team/siteName')} {...form.getInputProps('name')} />
        <Select
          mt="sm"
          searchable
          allowDeselect={false}
          limit={50}
          label={t('workshop/team/zone')}
          data={ZONES}
          {...form.getInputProps('timeZone')}
        />
        <Select
          mt="sm"
          allowDeselect={false}
          label={t('workshop/team/works')}
          data={calendars.map(({ id, spec }) => ({ value: id, label: spec.name }))}
          {...form.getInputProps('calendarId')}
        />
        {make.error && Object.keys(form.errors).length === 0 && <ProblemNote error={make.error} />}
        <Button
          type="submit"
          mt="md"
          loading={make.isPending}
          disabled={!form.values.name.trim() || !form.values.calendarId}
        >
          {t('workshop/saveNow')}
        </Button>
      </form>
    </Modal>
  );
}
