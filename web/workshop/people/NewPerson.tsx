import { Anchor, Button, Checkbox, Modal, Select, SimpleGrid, Text, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useDebouncedValue } from '@mantine/hooks';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { LANGUAGES } from '../../../core/forms';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useSites, useTeams } from '../../api/queries';
import { useDraft } from '../../api/useDraft';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useProblems } from '../../ui/useProblems';
import { NOBODY } from './facts';
import { useAlike, useRenewPeople } from './usePeople';

const EMPTY = { person: NOBODY, teamId: null as string | null, isInvited: true };

/** Who may be here already, so that nobody is there twice. */
function Alike({ name, email }: { name: string; email: string }) {
  const { t } = useWords();
  const [asked] = useDebouncedValue({ name, email }, 250);
  const { data = [] } = useAlike(asked.name, asked.email);
  if (data.length === 0) return null;
  return (
    <Text size="sm" mt="sm" role="status">
      {t('people/new/alike')}{' '}
      {data.map((person, i) => (
        <span key={person.id}>
          {i > 0 && ', '}
          <Anchor component={Link} to={`/workshop/people/${person.id}`}>
            {person.name}
          </Anchor>{' '}
          ({person.email})
        </span>
      ))}
    </Text>
  );
}

/** A person is made, taken into a team and let in. What is typed is kept until it is sent. */
export function NewPerson({ onClose }: { onClose(): void }) {
  const { t, local } = useWords();
  const go = useNavigate();
  const renew = useRenewPeople();
  const { data: sites = [] } = useSites();
  const { data: teams = [] } = useTeams();
  const [draft, setDraft, clear] = useDraft('workshop/people/new', EMPTY);
  const form = useForm({ initialValues: draft, onValuesChange: setDraft });
  const { siteId } = form.values.person;
  const onlySite = sites.length === 1 && siteId === '' ? sites[0]!.id : null;
  useEffect(() => {
    if (onlySite) form.setFieldValue('person.siteId', onlySite);
    // Where there is one alone, there is nothing to choose.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [onlySite]);
  const [key] = useState(() => nanoid());
  const toProblems = useProblems();
  const make = useMutation({
    mutationFn: (body: typeof EMPTY) => call(api.organisation.create, { body, key }),
    onSuccess: async ({ id }, { person, isInvited }) => {
      clear();
      const message = t(`people/new/${isInvited ? 'madeInvited' : 'made'}`, { name: person.name });
      notifications.show({ message });
      await renew();
      void go(`/workshop/people/${id}`);
    },
    onError: (error) => form.setErrors(toProblems(error)),
  });
  const { name, email } = form.values.person;
  const text = (field: 'name' | 'email' | 'title' | 'department') => (
    <TextInput
      label={t(`people/fields/${field}`)}
      data-autofocus={field === 'name' || undefined}
      {...form.getInputProps(`person.${field}`)}
    />
  );
  return (
    <Modal opened onClose={onClose} title={t('people/new/title')} size="lg">
      <form onSubmit={form.onSubmit((values) => make.mutate(values))}>
        <SimpleGrid cols={{ base: 1, sm: 2 }} spacing="sm">
          {text('name')}
          {text('email')}
          {text('title')}
          {text('department')}
          <Select
            searchable
            allowDeselect={false}
            label={t('people/fields/siteId')}
            data={sites.map((site) => ({ value: site.id, label: site.name }))}
            {...form.getInputProps('person.siteId')}
          />
          <Select
            allowDeselect={false}
            label={t('people/fields/language')}
            data={LANGUAGES.map((language) => ({
              value: language,
              label: t(`people/languages/${language}`),
            }))}
            {...form.getInputProps('person.language')}
          />
          <Select
            searchable
            clearable
            label={t('people/new/team')}
            placeholder={t('people/new/noTeam')}
            data={teams.map((team) => ({ value: team.id, label: local(team.name) }))}
            {...form.getInputProps('teamId')}
          />
        </SimpleGrid>
        <Checkbox
          mt="md"
          label={t('people/new/isInvited')}
          {...form.getInputProps('isInvited', { type: 'checkbox' })}
        />
        <Alike {...{ name, email }} />
        {make.error && Object.keys(form.errors).length === 0 && <ProblemNote error={make.error} />}
        <Button type="submit" mt="md" loading={make.isPending} disabled={!name.trim() || !email.trim()}>
          {name.trim() ? t('people/new/make', { name: name.trim() }) : t('people/new/makeNobody')}
        </Button>
      </form>
    </Modal>
  );
}
