import { Alert, Button, Group, NumberInput, Select, SimpleGrid, TextInput, Textarea } from '@mantine/core';
import type { UseFormReturnType } from '@mantine/form';
import { useDebouncedValue } from '@mantine/hooks';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { ThingRef } from '../../contract/estate';
import type { WorkBody } from '../../contract/works';
import { WORK_SORTS } from '../../core/works';
import { call } from '../api/call';
import { now, useNow } from '../api/clock';
import { api } from '../api/endpoints';
import { ThingSelect } from '../estate/ThingSelect';
import '../messages/estateWords';
import '../messages/worksWords';
import { useWords } from '../messages/useWords';
import { InstantInput } from '../ui/InstantInput';
import { ProblemNote } from '../ui/ProblemNote';
import { useTimes } from '../ui/useTimes';
import { Reckoned } from './Reckoned';
import { useReckoned } from './useWorks';
import classes from './Works.module.css';

export type WorkValues = Omit<WorkBody, 'thingIds'> & { things: Pick<ThingRef, 'id' | 'name'>[] };
export type WorkFormOf = UseFormReturnType<WorkValues>;

export const toWorkBody = ({ things, ...values }: WorkValues): WorkBody => ({
  ...values,
  thingIds: things.map(({ id }) => id),
});

const AHEAD_MS = 60 * 86_400_000;
/** Free from now on is too late once it is written: it begins at a full quarter of an hour, half an hour from now at least. */
const QUARTER_MS = 15 * 60_000;
const soonest = (at: number): number => Math.ceil((at + 2 * QUARTER_MS) / QUARTER_MS) * QUARTER_MS;
const LEVELS = ['low', 'medium', 'high'] as const;

type Asked = { number: number | null; serviceId: string; minutes: number };

/** The next free time, at any hour or while nobody works by a calendar. */
function FindSlot({ form, asked }: { form: WorkFormOf; asked: Asked }) {
  const { t } = useWords();
  const times = useTimes();
  const at = useNow(60_000);
  const { fromAt, toAt, things } = form.values;
  const written =
    fromAt !== null && toAt !== null && toAt > fromAt ? (toAt - fromAt) / 60_000 : asked.minutes;
  const [minutes, setMinutes] = useState<number>(written || 60);
  const [outside, setOutside] = useState<string | null>(null);
  const { data: calendars = [] } = useQuery({
    queryKey: ['calendars'],
    queryFn: () => call(api.calendars.list),
  });
  const find = useMutation({
    mutationFn: () => {
      const notBefore = Math.max(soonest(now()), fromAt ?? 0);
      const { number, serviceId } = asked;
      const thingIds = things.map(({ id }) => id);
      const bounds = { minutes, notBefore, notAfter: notBefore + AHEAD_MS, outsideCalendarId: outside };
      return call(api.works.slot, { body: { number, serviceId, thingIds, ...bounds } });
    },
    onSuccess: ({ fromAt: free }) => {
      notifications.show({
        message: free === null ? t('works/slot/none') : t('works/slot/found', { when: times.when(free, at) }),
      });
      if (free !== null) form.setValues({ fromAt: free, toAt: free + minutes * 60_000 });
    },
  });
  return (
    <Group align="end" gap="sm">
      <NumberInput
        w={150}
        min={1}
        label={t('works/slot/minutes')}
        value={minutes}
        onChange={(value) => setMinutes(Number(value) || 1)}
      />
      <Select
        w={220}
        clearable
        label={t('works/slot/outside')}
        placeholder={t('works/slot/anyTime')}
        data={calendars.map(({ id, spec }) => ({ value: id, label: spec.name }))}
        value={outside}
        onChange={setOutside}
      />
      <Button variant="default" loading={find.isPending} onClick={() => find.mutate()}>
        {t('works/slot/find')}
      </Button>
      <ProblemNote error={find.error} />
    </Group>
  );
}

function Things({ form }: { form: WorkFormOf }) {
  const { t } = useWords();
  const { things } = form.values;
  return (
    <div>
      <ThingSelect
        label={t('works/fields/things')}
        placeholder={t('works/fields/addThing')}
        except={things.map(({ id }) => id)}
        onPick={({ id, name }) => form.setFieldValue('things', [...things, { id, name }])}
      />
      {form.errors.things && <small role="alert">{form.errors.things}</small>}
      <Group gap={6} mt={4}>
        {things.map(({ id, name }) => (
          <Button
            key={id}
            size="compact-xs"
            variant="default"
            aria-label={`× ${name}`}
            onClick={() =>
              form.setFieldValue(
                'things',
                things.filter((thing) => thing.id !== id),
              )
            }
          >
            {name} ×
          </Button>
        ))}
      </Group>
    </div>
  );
}

/** What is reckoned of it while it is written, and a risk that is said otherwise. */
function Risk({ form, asked }: { form: WorkFormOf; asked: Asked }) {
  const { t } = useWords();
  const { fromAt, toAt, things, riskSaid } = form.values;
  const [settled] = useDebouncedValue({ fromAt, toAt, things }, 250);
  const { number, serviceId } = asked;
  const { data, error } = useReckoned({
    ...{ number, serviceId, thingIds: settled.things.map(({ id }) => id) },
    ...{ fromAt: settled.fromAt, toAt: settled.toAt },
  });
  return (
    <>
      <ProblemNote error={error} />
      {data && <Reckoned known={data} own={number} hasStretch={fromAt !== null && toAt !== null} />}
      <Group align="end" gap="sm">
        <Select
          w={240}
          clearable
          label={t('works/fields/riskSaid')}
          placeholder={t('works/fields/asReckoned')}
          data={LEVELS.map((level) => ({ value: level, label: t(`works/levels/${level}`) }))}
          value={riskSaid}
          onChange={(value) =>
            form.setFieldValue('riskSaid', LEVELS.find((level) => level === value) ?? null)
          }
        />
        {riskSaid !== null && (
          <TextInput
            style={{ flex: 1 }}
            label={t('works/fields/riskReason')}
            {...form.getInputProps('riskReason')}
          />
        )}
      </Group>
    </>
  );
}

/** What a change is: what is done to what, when, how it is tested and taken back; beside it what is reckoned of that. */
export function WorkFields({ form, asked, isAgreed }: { form: WorkFormOf; asked: Asked; isAgreed: boolean }) {
  const { t } = useWords();
  const window = (name: 'fromAt' | 'toAt') => (
    <InstantInput
      label={t(`works/fields/${name}`)}
      value={form.values[name]}
      error={form.errors[name]}
      onChange={(value) => form.setFieldValue(name, value)}
    />
  );
  const long = (name: 'why' | 'test' | 'takeBack') => (
    <Textarea autosize minRows={2} label={t(`works/fields/${name}`)} {...form.getInputProps(name)} />
  );
  return (
    <>
      {isAgreed && (
        <Alert mb="sm" color="gray" variant="outline">
          {t('works/askedAgain')}
        </Alert>
      )}
      <SimpleGrid cols={{ base: 1, sm: 2 }} spacing="sm">
        <TextInput label={t('works/fields/title')} {...form.getInputProps('title')} />
        <Select
          label={t('works/fields/sort')}
          allowDeselect={false}
          data={WORK_SORTS.map((sort) => ({ value: sort, label: t(`works/sorts/${sort}`) }))}
          {...form.getInputProps('sort')}
        />
        <Things form={form} />
        {long('why')}
        {window('fromAt')}
        {window('toAt')}
      </SimpleGrid>
      <FindSlot form={form} asked={asked} />
      <SimpleGrid cols={{ base: 1, sm: 2 }} spacing="sm" mt="sm" mb="md">
        {long('test')}
        {long('takeBack')}
        <NumberInput
          label={t('works/fields/problem')}
          value={form.values.problemNumber ?? ''}
          error={form.errors.problemNumber}
          onChange={(value) => form.setFieldValue('problemNumber', value === '' ? null : Number(value))}
        />
      </SimpleGrid>
      <div className={classes.move}>
        <Risk form={form} asked={asked} />
      </div>
    </>
  );
}
