import { Alert, Button, Checkbox, Group, Select, SimpleGrid, Text, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import type { KeptPerson, PersonBody } from '../../../contract/organisation';
import { LANGUAGES } from '../../../core/forms';
import { ApiProblem, call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useSites } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { PersonPicker } from '../../ui/PersonPicker';
import { ProblemNote } from '../../ui/ProblemNote';
import { useProblems } from '../../ui/useProblems';
import { bodyOf } from './facts';

const TEXTS = [
  ...(['name', 'email', 'phone', 'title', 'department', 'place', 'vessel', 'costCentre'] as const),
];
const FLAGS = ['isAdministrator', 'mayAskForOthers', 'goesFirst'] as const;

function Manager({
  name,
  onChange,
}: {
  name: string | null;
  onChange(id: string | null, name: string): void;
}) {
  const { t } = useWords();
  return (
    <div>
      <Text size="sm" fw={500}>
        {t('people/fields/managerId')}: {name ?? t('people/noManager')}
      </Text>
      <Group gap="xs" align="end">
        <PersonPicker
          label={t('people/manager')}
          size="xs"
          onPick={(person) => onChange(person.id, person.name)}
        />
        {name !== null && (
          <Button size="xs" variant="default" onClick={() => onChange(null, '')}>
            {t('people/noOne')}
          </Button>
        )}
      </Group>
    </div>
  );
}

/** Somebody else was quicker: which facts differ now. What was typed stays. */
function Theirs({ error, onReload }: { error: unknown; onReload(): void }) {
  const { t } = useWords();
  if (!(error instanceof ApiProblem) || error.code !== 'stale') return null;
  const fields = (error.problem?.differences ?? []).map(({ field }) => t(`people/fields/${field}`));
  return (
    <Alert mt="sm" color="gray" variant="outline">
      {t('people/theirs', { fields: fields.join(', ') })}{' '}
      <Button size="compact-sm" variant="default" onClick={onReload}>
        {t('people/reload')}
      </Button>
    </Alert>
  );
}

/** What is kept of a person, to be changed. */
export function FactsForm({ person, onRenew }: { person: KeptPerson; onRenew(): void }) {
  const { t } = useWords();
  const toProblems = useProblems();
  const { data: sites = [] } = useSites();
  const form = useForm<{ person: PersonBody }>({ initialValues: { person: bodyOf(person) } });
  const [manager, setManager] = useState(person.manager?.name ?? null);
  const save = useMutation({
    mutationFn: (values: { person: PersonBody }) =>
      call(api.organisation.update, {
        ...{ params: { id: person.id }, body: { version: person.version, ...values }, key: nanoid() },
      }),
    onSuccess: () => {
      notifications.show({ message: t('people/saved') });
      onRenew();
    },
    onError: (error) => form.setErrors(toProblems(error)),
  });
  const { errors } = form;
  return (
    <form onSubmit={form.onSubmit((values) => save.mutate(values))}>
      <SimpleGrid cols={{ base: 1, sm: 2 }} spacing="sm">
        {TEXTS.map((field) => (
          <TextInput
            key={field}
            label={t(`people/fields/${field}`)}
            {...form.getInputProps(`person.${field}`)}
          />
        ))}
        <Select
          searchable
          allowDeselect={false}
          label={t('people/fields/siteId')}
          data={sites.map(({ id, name }) => ({ value: id, label: name }))}
          {...form.getInputProps('person.siteId')}
        />
        <Select
          allowDeselect={false}
          label={t('people/fields/language')}
          data={LANGUAGES.map((language) => ({ value: language, label: t(`people/languages/${language}`) }))}
          {...form.getInputProps('person.language')}
        />
        <div>
          <Manager
            name={manager}
            onChange={(id, name) => {
              form.setFieldValue('person.managerId', id);
              setManager(id === null ? null : name);
            }}
          />
          {errors['person.managerId'] && (
            <Text size="xs" c="var(--brick)" role="alert">
              {errors['person.managerId']}
            </Text>
          )}
        </div>
        <div>
          {FLAGS.map((field) => (
            <Checkbox
              key={field}
              mt="xs"
              label={t(`people/fields/${field}`)}
              {...form.getInputProps(`person.${field}`, { type: 'checkbox' })}
            />
          ))}
        </div>
      </SimpleGrid>
      <Theirs error={save.error} onReload={onRenew} />
      {save.error && Object.keys(errors).length === 0 && !isStale(save.error) && (
        <ProblemNote error={save.error} />
      )}
      <Group mt="md" gap="sm">
        <Button type="submit" loading={save.isPending} disabled={!form.isDirty()}>
          {t('people/save')}
        </Button>
        {form.isDirty() && (
          <Button
            variant="default"
            onClick={() => {
              form.reset();
              setManager(person.manager?.name ?? null);
            }}
          >
            {t('people/takeBack')}
          </Button>
        )}
      </Group>
    </form>
  );
}

const isStale = (error: unknown): boolean => error instanceof ApiProblem && error.code === 'stale';
