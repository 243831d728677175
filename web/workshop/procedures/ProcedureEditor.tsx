import { TICKET_KINDS, type TicketKind } from '../../../core/tickets';
import { Button, Group } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useNavigate } from 'react-router';
import type { Procedure, ProcedureBody } from '../../../contract/procedures';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useDraft } from '../../api/useDraft';
import { useWords } from '../../messages/useWords';
import { InlineRemove, InlineSelect } from '../../ui/Inline';
import { ProblemNote } from '../../ui/ProblemNote';
import { useProblems } from '../../ui/useProblems';
import { BothLanguages } from '../../ui/BothLanguages';
import { SortableItem, SortableList } from '../../ui/Sortable';
import classes from './Procedures.module.css';

const NOTHING = { en: '', pt: '' };
const newStep = (): ProcedureBody['steps'][number] => ({
  ...{ id: nanoid(10), name: NOTHING, who: NOTHING, instruction: NOTHING },
});
const newBody = (teamId: string): ProcedureBody => ({
  ...{ teamId, serviceId: null, kind: 'incident', name: NOTHING, overview: NOTHING, steps: [newStep()] },
});

const isKind = (value: string): value is TicketKind => TICKET_KINDS.some((kind) => kind === value);

/** Writes down how a service or a kind of work is done; what is written is kept until it is saved. */
export function ProcedureEditor({ teamId, procedure }: { teamId: string; procedure: Procedure | null }) {
  const { t, local } = useWords();
  const client = useQueryClient();
  const navigate = useNavigate();
  const { data: services = [] } = useQuery({
    queryKey: ['serviceLines'],
    queryFn: () => call(api.services.list),
  });
  const { id, version, mayEdit: _, ...written } = procedure ?? { id: null, version: 0, mayEdit: true };
  const [body, setBody, clear] = useDraft<ProcedureBody>(
    `procedure:${id ?? teamId}:${version}`,
    procedure ? (written as ProcedureBody) : newBody(teamId),
  );
  const isFixed = procedure ? !procedure.mayEdit : false;
  const done = async (): Promise<void> => {
    clear();
    await client.invalidateQueries({ queryKey: ['procedures'] });
    await client.invalidateQueries({ queryKey: ['procedure'] });
  };
  const save = useMutation({
    mutationFn: async () => {
      if (id === null) return (await call(api.procedures.create, { body })).id;
      await call(api.procedures.update, { params: { id }, body: { ...body, version } });
      return id;
    },
    onSuccess: async (savedId) => {
      notifications.show({ message: t('procedures/saved', { name: local(body.name) }) });
      await done();
      if (id === null) await navigate(`/workshop/procedures/${savedId}`, { replace: true });
    },
  });
  const remove = useMutation({
    mutationFn: () => call(api.procedures.remove, { params: { id: id! } }),
    onSuccess: async () => {
      notifications.show({ message: t('procedures/removed', { name: local(body.name) }) });
      await done();
      await navigate('/workshop/procedures');
    },
  });
  const problems = useProblems()(save.error);
  const set = (change: Partial<ProcedureBody>): void => setBody({ ...body, ...change });
  const { steps } = body;
  const put = (i: number, change: Partial<(typeof steps)[number]>): void =>
    set({ steps: steps.with(i, { ...steps[i]!, ...change }) });
  return (
    <form
      className={classes.editor}
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <p>
        {t('procedures/isFor')}{' '}
        <InlineSelect
          label={t('procedures/isFor')}
          isFixed={isFixed}
          value={body.serviceId ?? body.kind ?? ''}
          options={[
            ...TICKET_KINDS.map((kind) => ({ value: kind, label: t(`procedures/${kind}s`) })),
            ...services
              .filter((service) => service.teamId === body.teamId)
              .map((service) => ({
                value: service.id,
                label: t('procedures/serviceFor', { name: local(service.title) }),
              })),
          ]}
          onChange={(value) =>
            set(isKind(value) ? { serviceId: null, kind: value } : { serviceId: value, kind: null })
          }
        />{' '}
        {t('procedures/isDone')}
      </p>
      <BothLanguages
        label={t('procedures/name')}
        value={body.name}
        isFixed={isFixed}
        onChange={(name) => set({ name })}
      />
      <BothLanguages
        isLong
        label={t('procedures/overview')}
        value={body.overview}
        isFixed={isFixed}
        onChange={(overview) => set({ overview })}
      />
      <h2>{t('procedures/steps')}</h2>
      <SortableList
        ids={steps.map((step) => step.id)}
        onOrder={(ids) => set({ steps: ids.map((stepId) => steps.find((step) => step.id === stepId)!) })}
      >
        <ol>
          {steps.map((step, i) => (
            <SortableItem
              key={step.id}
              id={step.id}
              className={classes.step}
              isFixed={isFixed}
              label={t('procedures/moveStep', { name: local(step.name) || i + 1 })}
            >
              {(grip) => (
                <>
                  {grip}
                  <div>
                    <BothLanguages
                      label={t('procedures/stepName')}
                      value={step.name}
                      isFixed={isFixed}
                      onChange={(name) => put(i, { name })}
                    />
                    <BothLanguages
                      label={t('procedures/who')}
                      value={step.who}
                      isFixed={isFixed}
                      onChange={(who) => put(i, { who })}
                    />
                    <BothLanguages
                      isLong
                      label={t('procedures/exactly')}
                      value={step.instruction}
                      isFixed={isFixed}
                      onChange={(instruction) => put(i, { instruction })}
                    />
                    {problems[`steps.${i}.name`] && <p role="alert">{problems[`steps.${i}.name`]}</p>}
                  </div>
                  {!isFixed && steps.length > 1 && (
                    <InlineRemove
                      name={local(step.name) || t('procedures/noStep')}
                      onRemove={() => set({ steps: steps.toSpliced(i, 1) })}
                    />
                  )}
                </>
              )}
            </SortableItem>
          ))}
        </ol>
      </SortableList>
      {['name', 'serviceId', 'steps'].map(
        (field) =>
          problems[field] && (
            <p key={field} role="alert">
              {problems[field]}
            </p>
          ),
      )}
      {save.error && Object.keys(problems).length === 0 && <ProblemNote error={save.error} />}
      <ProblemNote error={remove.error} />
      {!isFixed && (
        <Group mt="sm">
          <Button size="xs" variant="default" onClick={() => set({ steps: [...steps, newStep()] })}>
            {t('procedures/addStep')}
          </Button>
          <Button size="xs" type="submit" loading={save.isPending}>
            {t('common/save')}
          </Button>
          {id !== null && (
            <Button size="xs" variant="subtle" onClick={() => remove.mutate()}>
              {t('procedures/remove')}
            </Button>
          )}
        </Group>
      )}
    </form>
  );
}
