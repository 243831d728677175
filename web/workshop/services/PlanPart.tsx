import { Button } from '@mantine/core';
import { nanoid } from 'nanoid';
import { lazy, Suspense, useMemo, useState } from 'react';
import type { FormField } from '../../../core/forms';
import type { ServicePlan, ServiceStep } from '../../../core/plans';
import { useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { Waiting } from '../../ui/Waiting';
import type { Names } from './ApprovalsPart';
import { BothLanguages } from '../../ui/BothLanguages';
import { InlineText } from '../../ui/Inline';
import classes from './services.module.css';
import { StepEditor } from './StepEditor';
import type { PartProps } from './useService';

const PlanGraph = lazy(() => import('./PlanGraph').then(({ PlanGraph: graph }) => ({ default: graph })));
const EMPTY = { en: '', pt: '' };

const newStep = (leg: string, teamId: string): ServiceStep => ({
  id: `s${nanoid(6)}`,
  leg,
  name: EMPTY,
  kind: 'task',
  teamId,
});

function withoutStep(plan: ServicePlan, id: string): ServicePlan {
  const steps = plan.steps
    .filter((step) => step.id !== id)
    .map(({ after, ...step }) => {
      const left = after?.filter((each) => each !== id);
      return { ...step, ...(left && left.length > 0 && { after: left }) };
    });
  return { ...plan, steps };
}

/** What has to happen: a drawing, and the same as a list, part after part. */
export function PlanPart({
  definition,
  isFixed,
  change,
  names,
  onName,
  bad,
}: PartProps & Names & { bad: Set<string> }) {
  const { t, local } = useWords();
  const { data: teams = [] } = useTeams();
  const [open, setOpen] = useState<string | null>(null);
  const plan = definition.plan as ServicePlan | null;
  const team = teams.find(({ id }) => id === definition.teamId);
  const set = (next: ServicePlan | null): void => change({ plan: next });
  const fields = useMemo(() => definition.form.fields as FormField[], [definition.form]);
  if (!plan)
    return (
      <>
        <span className={classes.quiet}>
          {t('services/plan/none', { team: team ? local(team.name) : '' })}
        </span>{' '}
        {!isFixed && (
          <Button
            size="compact-sm"
            variant="subtle"
            onClick={() =>
              set({
                legs: [{ id: 'leg1', name: { en: 'Do', pt: 'Fazer' } }],
                steps: [newStep('leg1', definition.teamId)],
              })
            }
          >
            {t('services/plan/begin')}
          </Button>
        )}
      </>
    );
  const update = (step: ServiceStep): void =>
    set({ ...plan, steps: plan.steps.map((each) => (each.id === step.id ? step : each)) });
  const connect = (from: ServiceStep, to: ServiceStep): void => {
    if (!to.after?.includes(from.id)) update({ ...to, after: [...(to.after ?? []), from.id] });
  };
  const disconnect = (from: string, to: string): void => {
    const { after, ...step } = plan.steps.find(({ id }) => id === to)!;
    const left = after?.filter((each) => each !== from) ?? [];
    update({ ...step, ...(left.length > 0 && { after: left }) });
  };
  return (
    <>
      <Suspense fallback={<Waiting />}>
        <PlanGraph
          {...{ plan, bad, isFixed }}
          onOpen={setOpen}
          onConnect={connect}
          onDisconnect={disconnect}
        />
      </Suspense>
      {!isFixed && <small className={classes.quiet}>{t('services/plan/connect')}</small>}
      {plan.legs.map((leg, i) => (
        <div key={leg.id}>
          <div className={classes.leg}>
            <span className={classes.quiet}>{t('services/plan/leg', { n: i + 1 })}</span>
            {(['en', 'pt'] as const).map((language) => (
              <InlineText
                key={language}
                label={`${t('services/plan/leg', { n: i + 1 })}, ${language}`}
                isFixed={isFixed}
                value={leg.name[language]}
                onChange={(name) =>
                  set({
                    ...plan,
                    legs: plan.legs.map((each) =>
                      each.id === leg.id ? { ...each, name: { ...each.name, [language]: name } } : each,
                    ),
                  })
                }
              />
            ))}
            {!isFixed && (
              <>
                <Button
                  size="compact-xs"
                  variant="subtle"
                  onClick={() => {
                    const step = newStep(leg.id, definition.teamId);
                    set({ ...plan, steps: [...plan.steps, step] });
                    setOpen(step.id);
                  }}
                >
                  {t('services/plan/addStep')}
                </Button>
                <Button
                  size="compact-xs"
                  variant="subtle"
                  color="gray"
                  onClick={() =>
                    set({
                      ...plan,
                      legs: plan.legs.filter(({ id }) => id !== leg.id),
                      steps: plan.steps.filter((step) => step.leg !== leg.id),
                    })
                  }
                >
                  {t('services/plan/removeLeg')}
                </Button>
              </>
            )}
          </div>
          {plan.steps
            .filter((step) => step.leg === leg.id)
            .map((step) => (
              <div key={step.id} className={classes.step} data-kind={step.kind}>
                <button
                  type="button"
                  aria-expanded={open === step.id}
                  aria-label={t('services/plan/change', { name: local(step.name) || step.id })}
                  onClick={() => setOpen(open === step.id ? null : step.id)}
                >
                  {local(step.name) || '…'}
                </button>{' '}
                <small className={classes.quiet}>
                  {step.kind === 'task' || step.kind === 'ranking'
                    ? local(teams.find(({ id }) => id === step.teamId)?.name ?? EMPTY)
                    : t(`services/plan/kinds/${step.kind}`)}
                </small>
                {open === step.id && (
                  <StepEditor
                    {...{ step, fields, names, onName, isFixed }}
                    beside={plan.steps.filter(({ leg: other, id }) => other === step.leg && id !== step.id)}
                    onChange={update}
                    onRemove={() => set(withoutStep(plan, step.id))}
                  />
                )}
              </div>
            ))}
        </div>
      ))}
      <BothLanguages
        label={t('services/plan/doneWords')}
        isFixed={isFixed}
        value={plan.doneWords ?? EMPTY}
        onChange={(doneWords) => set({ ...plan, doneWords })}
      />
      {!isFixed && (
        <div className={classes.leg}>
          <Button
            size="compact-sm"
            variant="subtle"
            onClick={() =>
              set({
                ...plan,
                legs: [...plan.legs, { id: `l${nanoid(6)}`, name: { en: 'Then', pt: 'Depois' } }],
              })
            }
          >
            {t('services/plan/addLeg')}
          </Button>
          <Button size="compact-sm" variant="subtle" color="gray" onClick={() => set(null)}>
            {t('services/plan/end')}
          </Button>
        </div>
      )}
    </>
  );
}
