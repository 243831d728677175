import {
  ActionIcon,
  Alert,
  Button,
  Checkbox,
  Group,
  PasswordInput,
  Select,
  Text,
  Textarea,
  TextInput,
} from '@mantine/core';
import { useForm, type UseFormReturnType } from '@mantine/form';
import { IconX } from '@tabler/icons-react';
import type { ProviderBody, ProviderView } from '../../../contract/signOn';
import { ApiProblem } from '../../api/call';
import { useSites, useTeams } from '../../api/queries';
import { useDraft } from '../../api/useDraft';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useProblems } from '../../ui/useProblems';
import { useSaveProvider } from './useSignOn';

/** What is being written: domains as lines. The secret is no part of it, so that no draft keeps it. */
type Written = Omit<ProviderBody, 'domains'> & { domains: string };
type Form = UseFormReturnType<Written & { secret: string }>;

const ROLES = ['agent', 'lead', 'teamAdministrator'] as const;
const FLAGS = ['isOn', 'makesPeople', 'endsThere'] as const;

const FRESH: Written = {
  ...{ name: '', issuer: 'https://', clientId: '', domains: '', isOn: true, makesPeople: false },
  ...{ siteId: '', groupsClaim: '', groupTable: [], endsThere: false },
};
const toWritten = (provider: ProviderView): Written => {
  const { id: _id, version: _version, hasSecret: _has, people: _people, domains, ...rest } = provider;
  return { ...rest, domains: domains.join('\n') };
};
const toBody = ({ domains, secret, ...rest }: Written & { secret: string }, isNew: boolean) => ({
  ...rest,
  domains: domains
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean),
  ...((secret !== '' || isNew) && { secret }),
});

/** Which groups of the provider give which place in which team. */
function GroupTable({ form }: { form: Form }) {
  const { t, local } = useWords();
  const { data: teams = [] } = useTeams();
  return (
    <fieldset style={{ border: 0, padding: 0, margin: 0 }}>
      <Text component="legend" size="sm" fw={500} mb={4}>
        {t('signOn/fields/table')}
      </Text>
      {form.values.groupTable.map((_line, i) => {
        const number = { number: i + 1 };
        return (
          <Group key={i} gap="xs" mb={6} wrap="nowrap">
            <TextInput
              {...{ size: 'xs', style: { flex: 1 }, 'aria-label': t('signOn/fields/group', number) }}
              placeholder={t('signOn/fields/group', number)}
              {...form.getInputProps(`groupTable.${i}.group`)}
            />
            <Select
              {...{ size: 'xs', w: 180, allowDeselect: false, searchable: true }}
              aria-label={t('signOn/fields/team', number)}
              data={teams.map(({ id, name }) => ({ value: id, label: local(name) }))}
              {...form.getInputProps(`groupTable.${i}.teamId`)}
            />
            <Select
              {...{ size: 'xs', w: 170, allowDeselect: false, 'aria-label': t('signOn/fields/role', number) }}
              data={ROLES.map((each) => ({ value: each, label: t(`people/memberRoles/${each}`) }))}
              {...form.getInputProps(`groupTable.${i}.role`)}
            />
            <ActionIcon
              {...{ size: 'lg', variant: 'subtle', color: 'gray' }}
              aria-label={t('signOn/fields/takeOut', number)}
              onClick={() => form.removeListItem('groupTable', i)}
            >
              <IconX size={16} />
            </ActionIcon>
          </Group>
        );
      })}
      <Button
        {...{ size: 'compact-sm', variant: 'default', disabled: teams.length === 0 }}
        onClick={() => form.insertListItem('groupTable', { group: '', teamId: teams[0]!.id, role: 'agent' })}
      >
        {t('signOn/fields/addLine')}
      </Button>
    </fieldset>
  );
}

/** What becomes of those who come by it. */
function Arrivals({ form }: { form: Form }) {
  const { t } = useWords();
  const { data: sites = [] } = useSites();
  const wrong = Object.keys(form.errors).find((field) => field.startsWith('domains'));
  return (
    <>
      <Textarea
        {...{ autosize: true, minRows: 2 }}
        label={t('signOn/fields/domains')}
        {...form.getInputProps('domains')}
        error={wrong && form.errors[wrong]}
      />
      {FLAGS.map((flag) => (
        <Checkbox
          key={flag}
          label={t(`signOn/fields/${flag}`)}
          {...form.getInputProps(flag, { type: 'checkbox' })}
        />
      ))}
      <Select
        {...{ w: 280, searchable: true, allowDeselect: false }}
        label={t('signOn/fields/siteId')}
        data={sites.map(({ id, name }) => ({ value: id, label: name }))}
        {...form.getInputProps('siteId')}
      />
      <TextInput
        {...{ w: 280, description: t('signOn/fields/groupsHelp') }}
        label={t('signOn/fields/groupsClaim')}
        {...form.getInputProps('groupsClaim')}
      />
      <GroupTable form={form} />
    </>
  );
}

/** A provider, added or changed. What is written is kept until it is saved, but for the secret. */
export function ProviderForm({ provider, onReload }: { provider: ProviderView | null; onReload(): void }) {
  const { t } = useWords();
  const toProblems = useProblems();
  const place = `provider:${provider?.id ?? 'new'}:${provider?.version ?? 0}`;
  const [draft, setDraft, clear] = useDraft(place, provider ? toWritten(provider) : FRESH);
  const form: Form = useForm({
    initialValues: { ...draft, secret: '' },
    onValuesChange: ({ secret: _secret, ...written }) => setDraft(written),
  });
  const save = useSaveProvider(provider, clear);
  const isStale = save.error instanceof ApiProblem && save.error.code === 'stale';
  const send = (values: Form['values']): void =>
    save.mutate(toBody(values, provider === null), { onError: (error) => form.setErrors(toProblems(error)) });
  return (
    <form onSubmit={form.onSubmit(send)} style={{ maxWidth: 680, display: 'grid', gap: 12 }}>
      <TextInput label={t('signOn/fields/name')} {...form.getInputProps('name')} data-autofocus />
      <TextInput label={t('signOn/fields/issuer')} {...form.getInputProps('issuer')} />
      <TextInput label={t('signOn/fields/clientId')} {...form.getInputProps('clientId')} />
      <PasswordInput
        {...{ autoComplete: 'off' }}
        label={t('signOn/fields/secret')}
        description={t(provider?.hasSecret ? 'signOn/fields/secretKept' : 'signOn/fields/secretNone')}
        {...form.getInputProps('secret')}
      />
      <Arrivals form={form} />
      {isStale ? (
        <Alert color="gray" variant="outline" role="alert">
          {t('signOn/theirsChanged')}{' '}
          <Button size="compact-sm" variant="default" onClick={onReload}>
            {t('signOn/reload')}
          </Button>
        </Alert>
      ) : (
        Object.keys(form.errors).length === 0 && <ProblemNote error={save.error} />
      )}
      <Group>
        <Button type="submit" size="sm" loading={save.isPending}>
          {t('common/save')}
        </Button>
      </Group>
    </form>
  );
}
