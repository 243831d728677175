import { Button, Checkbox, Group, TextInput } from '@mantine/core';
import { useState } from 'react';
import { useAllServices } from '../../api/queries';
import { useWords } from '../../messages/useWords';

export type Named = { name: string; isOffered: boolean };

/** What a template is called, and whether those who ask may begin from it: only of a service of one's own team. */
export function TemplateName({
  serviceId,
  mayOffer,
  isPending,
  problem,
  onSave,
  onCancel,
  ...named
}: Named & {
  serviceId: string;
  mayOffer: boolean;
  isPending: boolean;
  problem: string | undefined;
  onSave(named: Named): void;
  onCancel(): void;
}) {
  const { t, local } = useWords();
  const { data: services = [] } = useAllServices();
  const [name, setName] = useState(named.name);
  const [isOffered, setOffered] = useState(named.isOffered);
  const service = services.find(({ id }) => id === serviceId);
  return (
    <>
      <Group gap="xs" align="flex-end">
        <TextInput
          size="xs"
          style={{ flex: 1 }}
          maxLength={120}
          label={t('raise/templateName')}
          value={name}
          error={problem}
          onChange={({ target }) => setName(target.value)}
        />
        <Button
          size="xs"
          loading={isPending}
          disabled={name.trim() === ''}
          onClick={() => onSave({ name: name.trim(), isOffered })}
        >
          {t('common/save')}
        </Button>
        <Button size="xs" variant="subtle" onClick={onCancel}>
          {t('common/cancel')}
        </Button>
      </Group>
      {mayOffer && service && (
        <Checkbox
          size="xs"
          mt={6}
          label={t('raise/offerTemplate', { service: local(service.title) })}
          checked={isOffered}
          onChange={({ target }) => setOffered(target.checked)}
        />
      )}
    </>
  );
}
