import {
  ActionIcon,
  Alert,
  Button,
  Checkbox,
  Group,
  NumberInput,
  Select,
  Text,
  Textarea,
  TextInput,
} from '@mantine/core';
import { useForm, type UseFormReturnType } from '@mantine/form';
import { IconX } from '@tabler/icons-react';
import type { ProgramBody, ProgramView } from '../../../contract/programs';
import { MOST_A_MINUTE } from '../../../core/programs';
import { ApiProblem } from '../../api/call';
import { useMe, useTeams } from '../../api/queries';
import { useDraft } from '../../api/useDraft';
import { useWords } from '../../messages/useWords';
import { InstantInput } from '../../ui/InstantInput';
import { PersonPicker } from '../../ui/PersonPicker';
import { ProblemNote } from '../../ui/ProblemNote';
import { useProblems } from '../../ui/useProblems';
import { useSaveProgram } from './useSaveProgram';

/** What is being written: networks as lines, the owner with the name that is shown. */
type Written = Omit<ProgramBody, 'networks'> & { networks: string; ownerName: string };
type Form = UseFormReturnType<Written>;

const ROLES = ['agent', 'lead', 'teamAdministrator'] as const;
const FLAGS = ['mayChange', 'mayAskForOthers', 'isAdministrator', 'isOn'] as const;
const PER_MINUTE = 120;

const toBody = ({ networks, ownerName: _name, ...rest }: Written): ProgramBody => ({
  ...rest,
  networks: networks
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean),
});
const toWritten = (program: ProgramView): Written => {
  const { id: _id, createdAt: _at, version: _version, keys: _keys, owner, networks, ...rest } = program;
  return { ...rest, networks: networks.join('\n'), ownerId: owner?.id ?? '', ownerName: owner?.name ?? '' };
};
const toFresh = (me: { id: string; name: string }): Written => ({
  ...{ name: '', purpose: '', ownerId: me.id, ownerName: me.name, isOn: true, mayChange: false, teams: [] },
  ...{ isAdministrator: false, mayAskForOthers: false, networks: '', perMinute: PER_MINUTE, endsAt: null },
});

function Owner({ form }: { form: Form }) {
  const { t } = useWords();
  const { ownerName } = form.values;
  return (
    <div>
      <Text size="sm" fw={500}>
        {t('programs/fields/owner')}: {ownerName}
      </Text>
      <PersonPicker
        label={t('programs/fields/pickOwner')}
        size="xs"
        onPick={({ id, name }) => form.setValues({ ownerId: id, ownerName: name })}
      />
      {form.errors.ownerId && (
        <Text size="xs" c="var(--brick)" role="alert">
          {form.errors.ownerId}
        </Text>
      )}
    </div>
  );
}

function Teams({ form }: { form: Form }) {
  const { t, local } = useWords();
  const { data: all = [] } = useTeams();
  const { teams } = form.values;
  const others = all.filter(({ id }) => !teams.some(({ teamId }) => teamId === id));
  return (
    <fieldset style={{ border: 0, padding: 0, margin: 0 }}>
      <Text component="legend" size="sm" fw={500}>
        {t('programs/fields/teams')}
      </Text>
      {teams.map(({ teamId, role }, i) => {
        const found = all.find(({ id }) => id === teamId);
        const name = found ? local(found.name) : teamId;
        return (
          <Group key={teamId} gap="xs" mb={6}>
            <Text size="sm" w={200}>
              {name}
            </Text>
            <Select
              {...{ size: 'xs', w: 190, allowDeselect: false, 'aria-label': name, value: role }}
              data={ROLES.map((each) => ({ value: each, label: t(`people/memberRoles/${each}`) }))}
              onChange={(value) => form.setFieldValue(`teams.${i}.role`, value as (typeof ROLES)[number])}
            />
            <ActionIcon
              {...{ size: 'lg', variant: 'subtle', color: 'gray' }}
              aria-label={t('programs/fields/takeOut', { team: name })}
              onClick={() => form.removeListItem('teams', i)}
            >
              <IconX size={16} />
            </ActionIcon>
          </Group>
        );
      })}
      <Select
        {...{ size: 'xs', w: 260, searchable: true, value: null }}
        label={t('programs/fields/join')}
        data={others.map(({ id, name }) => ({ value: id, label: local(name) }))}
        onChange={(teamId) => teamId && form.insertListItem('teams', { teamId, role: 'agent' })}
      />
    </fieldset>
  );
}

/** Where it may call from, how often, and until when. */
function Limits({ form }: { form: Form }) {
  const { t } = useWords();
  const wrong = Object.keys(form.errors).find((field) => field.startsWith('networks'));
  return (
    <>
      <Textarea
        {...{ autosize: true, minRows: 2, description: t('programs/fields/networksHelp') }}
        label={t('programs/fields/networks')}
        {...form.getInputProps('networks')}
        error={wrong && form.errors[wrong]}
      />
      <Group grow align="start" mt="sm">
        <NumberInput
          {...{ min: 1, max: MOST_A_MINUTE, allowDecimal: false, clampBehavior: 'strict' }}
          label={t('programs/fields/perMinute')}
          {...form.getInputProps('perMinute')}
        />
        <InstantInput
          label={t('programs/fields/endsAt')}
          value={form.values.endsAt}
          error={form.errors.endsAt}
          onChange={(endsAt) => form.setFieldValue('endsAt', endsAt)}
        />
      </Group>
    </>
  );
}

/** The account of a program, made or changed. What is written is kept until it is saved. */
export function ProgramForm({ program, onReload }: { program: ProgramView | null; onReload(): void }) {
  const { t } = useWords();
  const me = useMe();
  const toProblems = useProblems();
  const place = `program:${program?.id ?? 'new'}:${program?.version ?? 0}`;
  const [draft, setDraft, clear] = useDraft(place, program ? toWritten(program) : toFresh(me));
  const form: Form = useForm<Written>({ initialValues: draft, onValuesChange: setDraft });
  const save = useSaveProgram(program, clear);
  const isStale = save.error instanceof ApiProblem && save.error.code === 'stale';
  const send = (values: Written): void =>
    save.mutate(toBody(values), { onError: (error) => form.setErrors(toProblems(error)) });
  return (
    <form onSubmit={form.onSubmit(send)} style={{ maxWidth: 640, display: 'grid', gap: 12 }}>
      <TextInput label={t('programs/fields/name')} {...form.getInputProps('name')} data-autofocus />
      <TextInput label={t('programs/fields/purpose')} {...form.getInputProps('purpose')} />
      <Owner form={form} />
      {FLAGS.map((flag) => (
        <Checkbox
          key={flag}
          label={t(`programs/fields/${flag}`)}
          {...form.getInputProps(flag, { type: 'checkbox' })}
        />
      ))}
      <Teams form={form} />
      <Limits form={form} />
      {isStale ? (
        <Alert color="gray" variant="outline" role="alert">
          {t('programs/theirs')}{' '}
          <Button size="compact-sm" variant="default" onClick={onReload}>
            {t('programs/reload')}
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
