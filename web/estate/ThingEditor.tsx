import {
  Alert,
  Button,
  Checkbox,
  Group,
  Modal,
  NumberInput,
  Select,
  SimpleGrid,
  TextInput,
} from '@mantine/core';
import { useForm, type UseFormReturnType } from '@mantine/form';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useNavigate } from 'react-router';
import type { Thing, ThingBody } from '../../contract/estate';
import type { AnswerValue, FormField, Named } from '../../core/forms';
import { ApiProblem, call } from '../api/call';
import { api } from '../api/endpoints';
import { useSites, useTeams } from '../api/queries';
import { FieldInput } from '../form/FieldInput';
import { PersonInput } from '../form/PersonInput';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { useProblems } from '../ui/useProblems';
import { useKinds, useRenewThings } from './useThings';
import { DayInput } from '../ui/DayInput';

const TEXTS = ['name', 'tag', 'serial', 'model', 'place', 'vessel', 'contract'] as const;
const DAYS = ['boughtOn', 'warrantyUntil'] as const;
type Values = Omit<ThingBody, 'ownerId'> & { owner: Named | null };

const FACTS = [
  ...TEXTS,
  ...([
    'kindId',
    'siteId',
    'teamId',
    'cost',
    'boughtOn',
    'warrantyUntil',
    'isWatched',
    'dependable',
  ] as const),
];

function toValues(thing: Thing | null, kindId: string): Values {
  if (thing)
    return {
      ...(Object.fromEntries(FACTS.map((fact) => [fact, thing[fact]])) as Omit<Values, 'fields' | 'owner'>),
      ...{ fields: thing.fields, owner: thing.owner },
    };
  return {
    ...{
      name: '',
      tag: '',
      serial: '',
      model: '',
      place: '',
      vessel: '',
      contract: '',
      kindId,
      siteId: null,
    },
    ...{ teamId: null, cost: null, boughtOn: null, warrantyUntil: null, isWatched: false, dependable: null },
    ...{ fields: {}, owner: null },
  };
}

const toBody = ({ owner, ...values }: Values): ThingBody => ({ ...values, ownerId: owner?.id ?? null });
type Form = UseFormReturnType<Values>;

/** What the kind asks for. */
function KindFields({ form }: { form: Form }) {
  const { data: kinds = [] } = useKinds();
  const fields = (kinds.find(({ id }) => id === form.values.kindId)?.form.fields ?? []) as FormField[];
  return fields.map((field) => (
    <FieldInput
      key={field.name}
      field={field}
      value={form.values.fields[field.name] as AnswerValue | undefined}
      error={form.errors[`fields.${field.name}`] as string | undefined}
      isNeeded={field.needed}
      isFilled={false}
      files={[]}
      forPerson={null}
      onFiles={() => undefined}
      onChange={(value) => form.setFieldValue('fields', { ...form.values.fields, [field.name]: value })}
    />
  ));
}

function Facts({ form }: { form: Form }) {
  const { t, local } = useWords();
  const { data: kinds = [] } = useKinds();
  const { data: sites = [] } = useSites();
  const { data: teams = [] } = useTeams();
  const choose = (name: 'kindId' | 'siteId' | 'teamId', data: { value: string; label: string }[]) => (
    <Select
      {...{ data, searchable: true, clearable: name !== 'kindId', label: t(`estate/fields/${name}`) }}
      {...form.getInputProps(name)}
    />
  );
  const percent = form.values.dependable;
  return (
    <SimpleGrid cols={{ base: 1, sm: 2 }} spacing="sm">
      {choose(
        'kindId',
        kinds.filter(({ mayKeep }) => mayKeep).map(({ id, name }) => ({ value: id, label: local(name) })),
      )}
      {TEXTS.map((name) => (
        <TextInput key={name} label={t(`estate/fields/${name}`)} {...form.getInputProps(name)} />
      ))}
      {choose(
        'siteId',
        sites.map(({ id, name }) => ({ value: id, label: name })),
      )}
      {choose(
        'teamId',
        teams.map(({ id, name }) => ({ value: id, label: local(name) })),
      )}
      <PersonInput
        id="owner"
        label={t('estate/fields/ownerId')}
        value={form.values.owner}
        error={form.errors.ownerId}
        onChange={(owner) => form.setFieldValue('owner', owner)}
      />
      <NumberInput
        label={t('estate/fields/cost')}
        min={0}
        decimalScale={2}
        value={form.values.cost === null ? '' : form.values.cost / 100}
        error={form.errors.cost}
        onChange={(value) =>
          form.setFieldValue('cost', value === '' ? null : Math.round(Number(value) * 100))
        }
      />
      {DAYS.map((name) => (
        <DayInput
          key={name}
          label={t(`estate/fields/${name}`)}
          value={form.values[name] ?? ''}
          error={form.errors[name]}
          onChange={(day) => form.setFieldValue(name, day || null)}
        />
      ))}
      <KindFields form={form} />
      <NumberInput
        label={t('estate/fields/dependable')}
        {...{ min: 0, max: 100, decimalScale: 4 }}
        value={percent === null ? '' : Number((percent * 100).toFixed(4))}
        error={form.errors.dependable}
        onChange={(value) => form.setFieldValue('dependable', value === '' ? null : Number(value) / 100)}
      />
      <Checkbox
        mt="lg"
        label={t('estate/fields/isWatched')}
        {...form.getInputProps('isWatched', { type: 'checkbox' })}
      />
    </SimpleGrid>
  );
}

/** Writes what is known of a thing; without one, of a new one. */
export function ThingEditor({ thing, onClose }: { thing: Thing | null; onClose(): void }) {
  const { t } = useWords();
  const navigate = useNavigate();
  const renew = useRenewThings();
  const toProblems = useProblems();
  const { data: kinds = [] } = useKinds();
  const first = kinds.find(({ mayKeep }) => mayKeep)?.id ?? '';
  const form = useForm<Values>({ initialValues: toValues(thing, first) });
  const save = useMutation({
    mutationFn: async (values: Values) => {
      const body = toBody(values);
      if (thing) {
        const { id, version } = thing;
        await call(api.estate.update, { params: { id }, body: { ...body, version }, key: nanoid() });
        return id;
      }
      return (await call(api.estate.create, { body: { ...body, state: 'inStore' }, key: nanoid() })).id;
    },
    onSuccess: (id) => {
      notifications.show({ message: t(thing ? 'estate/saved' : 'estate/made') });
      void renew();
      onClose();
      if (!thing) void navigate(`/estate/${id}`);
    },
    onError: (error) => form.setErrors(toProblems(error)),
  });
  const isStale = save.error instanceof ApiProblem && save.error.code === 'stale';
  return (
    <Modal opened onClose={onClose} size="xl" title={t(thing ? 'estate/edit' : 'estate/new')}>
      <form onSubmit={form.onSubmit((values) => save.mutate(values))}>
        <Facts form={form} />
        {isStale && (
          <Alert mt="sm" color="gray" variant="outline">
            {t('estate/theirs')}
          </Alert>
        )}
        {!isStale && Object.keys(form.errors).length === 0 && <ProblemNote error={save.error} />}
        <Group mt="md">
          <Button type="submit" loading={save.isPending}>
            {t('estate/save')}
          </Button>
          <Button variant="default" onClick={onClose}>
            {t('estate/cancel')}
          </Button>
        </Group>
      </form>
    </Modal>
  );
}
