import { Button, Group, Modal, MultiSelect, Select, Stack, Textarea, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import type { ChatField } from '../../core/chat';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { callRooms } from './callRooms';
import type { OpenedForm } from './useRooms';

type FieldProps = { field: ChatField; value: string; onChange(value: string): void };

const TYPES: Partial<Record<ChatField['kind'], string>> = { date: 'date', time: 'time' };

function Field({ field: { kind, label, choices, note, needed, error }, value, onChange }: FieldProps) {
  const shared = {
    ...{ label, required: needed === true },
    ...(note !== undefined && { description: note }),
    ...(error !== undefined && { error }),
  };
  if (kind === 'choice')
    return (
      <Select
        {...shared}
        data={choices ?? []}
        value={value}
        searchable={(choices?.length ?? 0) > 8}
        allowDeselect={false}
        onChange={(chosen) => onChange(chosen ?? '')}
      />
    );
  if (kind === 'choices')
    return (
      <MultiSelect
        {...shared}
        data={choices ?? []}
        value={value === '' ? [] : value.split('\n')}
        onChange={(chosen) => onChange(chosen.join('\n'))}
      />
    );
  const Input = kind === 'text' ? Textarea : TextInput;
  return (
    <Input
      {...shared}
      {...(TYPES[kind] && { type: TYPES[kind] })}
      value={value}
      onChange={({ target }) => onChange(target.value)}
    />
  );
}

/** A form that the one connected opens for me. */
export function FormDialog({ opened: { form, roomId }, onClose }: { opened: OpenedForm; onClose(): void }) {
  const { t } = useWords();
  const [values, setValues] = useState(() =>
    Object.fromEntries(form.fields.map(({ name, value }) => [name, value])),
  );
  const send = useMutation({
    mutationFn: () => callRooms('POST', '/form', { roomId, callback: form.callback, values }),
    onSuccess: () => {
      notifications.show({ message: t('rooms/asked') });
      onClose();
    },
  });
  const isMissing = form.fields.some(({ name, needed }) => needed && !values[name]?.trim());
  return (
    <Modal opened onClose={onClose} title={form.title}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          send.mutate();
        }}
      >
        <Stack gap="sm">
          {form.fields.map((field) => (
            <Field
              key={field.name}
              field={field}
              value={values[field.name] ?? ''}
              onChange={(value) => setValues({ ...values, [field.name]: value })}
            />
          ))}
          <ProblemNote error={send.error} />
          <Group gap="xs">
            <Button type="submit" loading={send.isPending} disabled={isMissing}>
              {form.submit}
            </Button>
            <Button variant="default" onClick={onClose}>
              {t('common/cancel')}
            </Button>
          </Group>
        </Stack>
      </form>
    </Modal>
  );
}
