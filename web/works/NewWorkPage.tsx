import { Button, Group, Select } from '@mantine/core';
import { useForm } from '@mantine/form';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useEffect } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import type { WorkTemplate } from '../../contract/works';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import { useDraft } from '../api/useDraft';
import { EstateFrame } from '../estate/EstateFrame';
import '../messages/worksWords';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { useProblems } from '../ui/useProblems';
import { Waiting } from '../ui/Waiting';
import { useRenewWorks, useTemplates } from './useWorks';
import { toWorkBody, WorkFields, type WorkValues } from './WorkForm';
import classes from './Works.module.css';

type Draft = WorkValues & { serviceId: string | null; key: string };

const BLANK: WorkValues = {
  ...{ title: '', sort: 'normal', fromAt: null, toAt: null, why: '', test: '', takeBack: '', things: [] },
  ...{ problemNumber: null, riskSaid: null, riskReason: '' },
};

/** A change as it is begun: kept over a reload and a failed sending. */
function Begun({
  template,
  draft,
  set,
  clear,
}: {
  template: WorkTemplate;
  draft: Draft;
  set(draft: Draft): void;
  clear(): void;
}) {
  const { t } = useWords();
  const navigate = useNavigate();
  const renew = useRenewWorks();
  const toProblems = useProblems();
  const { serviceId: _, key, ...values } = draft;
  const form = useForm<WorkValues>({ initialValues: values });
  useEffect(
    () => set({ ...form.values, serviceId: template.serviceId, key }),
    [form.values, key, set, template.serviceId],
  );
  const save = useMutation({
    mutationFn: async (isSubmitted: boolean) => {
      const body = { ...toWorkBody(form.values), serviceId: template.serviceId };
      const { number } = await call(api.works.create, { body, key });
      if (isSubmitted)
        await call(api.works.submit, { params: { number }, body: { version: 1 }, key: nanoid() }).catch(
          (error: unknown) => {
            const faults = Object.entries(toProblems(error));
            const lacks = faults.map(([field, words]) => `${t(`works/fields/${field}`)}: ${words}`);
            notifications.show({ message: [t('works/stillDraft'), ...lacks].join(' ') });
          },
        );
      return number;
    },
    onSuccess: (number) => {
      clear();
      void renew();
      void navigate(`/estate/works/${number}`);
    },
    onError: (error) => form.setErrors(toProblems(error)),
  });
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate(true);
      }}
    >
      <WorkFields
        form={form}
        asked={{ number: null, serviceId: template.serviceId, minutes: template.minutes }}
        isAgreed={false}
      />
      {Object.keys(form.errors).length === 0 && <ProblemNote error={save.error} />}
      <Group>
        <Button type="submit" loading={save.isPending}>
          {t('works/submit')}
        </Button>
        <Button variant="default" loading={save.isPending} onClick={() => save.mutate(false)}>
          {t('works/save')}
        </Button>
        <Button
          variant="subtle"
          onClick={() => {
            clear();
            void navigate('/estate/works');
          }}
        >
          {t('works/cancel')}
        </Button>
      </Group>
    </form>
  );
}

/** Begins a change from a template, which fills in most of it. */
export function NewWorkPage() {
  const { t, local, language } = useWords();
  const [search] = useSearchParams();
  const { data: templates, error, refetch } = useTemplates();
  const problem = Number(search.get('problem')) || null;
  const [draft, setDraft, clear] = useDraft<Draft>('work', {
    ...BLANK,
    ...{ problemNumber: problem, title: search.get('title') ?? '', serviceId: null, key: nanoid() },
  });
  const template = templates?.find(({ serviceId }) => serviceId === draft.serviceId);
  const begin = (serviceId: string | null): void => {
    const chosen = templates?.find((each) => each.serviceId === serviceId);
    if (!chosen) return;
    const { why, test, takeBack, isStandard } = chosen;
    // What is written already stays; a template fills in what is blank.
    setDraft({
      ...draft,
      serviceId: chosen.serviceId,
      title: draft.title || local(chosen.title),
      sort: isStandard ? 'standard' : 'normal',
      ...{
        why: draft.why || why[language],
        test: draft.test || test[language],
        takeBack: draft.takeBack || takeBack[language],
      },
    });
  };
  return (
    <EstateFrame title={t('works/new')}>
      {error && !templates && <ProblemNote error={error} onRetry={() => void refetch()} />}
      {!templates && !error && <Waiting />}
      {templates?.length === 0 && <p>{t('works/noTemplates')}</p>}
      {templates && templates.length > 0 && (
        <Select
          mb="sm"
          maw={460}
          searchable
          allowDeselect={false}
          label={t('works/fields/template')}
          data={templates.map(({ serviceId, title, isStandard }) => ({
            value: serviceId,
            label: isStandard ? `${local(title)} · ${t('works/standard')}` : local(title),
          }))}
          value={draft.serviceId}
          onChange={begin}
        />
      )}
      {template && <p className={classes.quiet}>{local(template.description)}</p>}
      {template && <Begun key={template.serviceId} {...{ template, draft, clear, set: setDraft }} />}
    </EstateFrame>
  );
}
