import { NativeSelect } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { OfferedTemplate } from '../../../contract/templates';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';

/** What the team has prepared for what comes again and again: it fills in the form. */
export function RecurringCase({
  serviceId,
  onTake,
}: {
  serviceId: string;
  onTake(template: OfferedTemplate): void;
}) {
  const { t } = useWords();
  const [takenId, setTaken] = useState('');
  const { data: templates = [] } = useQuery({
    queryKey: ['templates', 'offered', serviceId],
    queryFn: () => call(api.templates.offered, { params: { id: serviceId } }),
  });
  if (templates.length === 0) return null;
  return (
    <NativeSelect
      label={t('service/recurring')}
      value={takenId}
      data={[
        { value: '', label: t('service/notRecurring') },
        ...templates.map(({ id, name }) => ({ value: id, label: name })),
      ]}
      onChange={({ target: { value } }) => {
        setTaken(value);
        const template = templates.find(({ id }) => id === value);
        if (template) onTake(template);
      }}
    />
  );
}
