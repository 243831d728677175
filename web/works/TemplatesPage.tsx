import { Button, Checkbox, Group, NumberInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import type { WorkTemplate } from '../../contract/works';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import estate from '../estate/Estate.module.css';
import { EstateFrame } from '../estate/EstateFrame';
import '../messages/worksWords';
import { useWords } from '../messages/useWords';
import { BothLanguages } from '../ui/BothLanguages';
import { ProblemNote } from '../ui/ProblemNote';
import { Waiting } from '../ui/Waiting';
import { useRenewWorks, useTemplates } from './useWorks';

/** A template: what it fills in, how its changes went, and whether they are agreed to beforehand. */
function Template({ template }: { template: WorkTemplate }) {
  const { t, local } = useWords();
  const renew = useRenewWorks();
  const { serviceId, version, past, advice, maySet } = template;
  const [body, setBody] = useState({
    ...{ isStandard: template.isStandard, minutes: template.minutes, why: template.why, test: template.test },
    ...{ takeBack: template.takeBack, thingIds: template.thingIds },
  });
  const save = useMutation({
    mutationFn: () =>
      call(api.works.setTemplate, { params: { id: serviceId }, body: { version, ...body }, key: nanoid() }),
    onSuccess: () => notifications.show({ message: t('works/template/saved') }),
    onSettled: renew,
  });
  return (
    <section className={estate.section}>
      <h2>{local(template.title)}</h2>
      <p>
        {local(template.description)}{' '}
        <span className={estate.quiet}>
          {past.all === 0
            ? t('works/template/none')
            : t('works/template/past', { failed: past.failed, all: past.all })}
        </span>
      </p>
      {advice && <p className={estate.band}>{t(`works/advice/${advice}`)}</p>}
      <Group align="end" mb="xs">
        <Checkbox
          disabled={!maySet}
          label={t('works/template/isStandard')}
          checked={body.isStandard}
          onChange={({ target }) => setBody({ ...body, isStandard: target.checked })}
        />
        <NumberInput
          w={190}
          min={0}
          readOnly={!maySet}
          label={t('works/template/minutes')}
          value={body.minutes}
          onChange={(value) => setBody({ ...body, minutes: Number(value) || 0 })}
        />
      </Group>
      {(['why', 'test', 'takeBack'] as const).map((name) => (
        <BothLanguages
          key={name}
          isLong
          label={t(`works/fields/${name}`)}
          isFixed={!maySet}
          value={body[name]}
          onChange={(value) => setBody({ ...body, [name]: value })}
        />
      ))}
      {maySet && (
        <Button mt="xs" size="xs" variant="default" loading={save.isPending} onClick={() => save.mutate()}>
          {t('works/saveChanges')}
        </Button>
      )}
      <ProblemNote error={save.error} />
    </section>
  );
}

/** What changes are begun from. Who agrees to them, and their steps, are set with their service in the Workshop. */
export function TemplatesPage() {
  const { t } = useWords();
  const { data, error, refetch } = useTemplates();
  return (
    <EstateFrame title={t('works/templates')}>
      {error && !data && <ProblemNote error={error} onRetry={() => void refetch()} />}
      {!data && !error && <Waiting />}
      {data?.length === 0 && <p>{t('works/noTemplates')}</p>}
      {data?.map((template) => (
        <Template key={`${template.serviceId} ${template.version}`} template={template} />
      ))}
    </EstateFrame>
  );
}
