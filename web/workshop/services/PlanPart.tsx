import { Button } from '@mantine/core';
import { lazy, Suspense, useMemo, useState } from 'react';
import type { ProcessStep } from '../../../core/approvals';
import type { FormField } from '../../../core/forms';
import {
  approvalsOf,
  beginPlan,
  END_BLANKS,
  keyOfWords,
  nameKeys,
  type ServicePlan,
  type ServiceStep,
} from '../../../core/plans';
import { useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { Waiting } from '../../ui/Waiting';
import type { Names } from './ApprovalsPart';
import { BothLanguages } from '../../ui/BothLanguages';
import { PlanLeg } from './PlanLeg';
import classes from './services.module.css';
import type { PartProps } from './useService';

const PlanGraph = lazy(() => import('./PlanGraph').then(({ PlanGraph: graph }) => ({ default: graph })));
const EMPTY = { en: '', pt: '' };

/** One task is enough so far; a plan can be drawn, and what must be agreed is then its first part. */
function NoPlan({ definition, isFixed, change }: PartProps) {
  const { t, local } = useWords();
  const { data: teams = [] } = useTeams();
  const team = teams.find(({ id }) => id === definition.teamId);
  const approvals = definition.approvals as ProcessStep[];
  return (
    <>
      <span className={classes.quiet}>{t('services/plan/none', { team: team ? local(team.name) : '' })}</span>{' '}
      {!isFixed && (
        <Button
          size="compact-sm"
          variant="subtle"
          onClick={() => change({ approvals: [], plan: beginPlan(approvals, definition.teamId) })}
        >
          {t(approvals.length > 0 ? 'services/plan/beginAgreed' : 'services/plan/begin')}
        </Button>
      )}
    </>
  );
}

/** What has to happen: a drawing, and the same as a list, part after part. */
export function PlanPart(props: PartProps & Names & { bad: Set<string> }) {
  const { definition, isFixed, change, names, onName, bad } = props;
  const { t } = useWords();
  const [open, setOpen] = useState<string | null>(null);
  const plan = definition.plan as ServicePlan | null;
  const fields = useMemo(() => definition.form.fields as FormField[], [definition.form]);
  if (!plan) return <NoPlan {...{ definition, isFixed, change }} />;
  const set = (next: ServicePlan): void => change({ plan: next });
  /** A step that was named while it was open has a key of its name from then on. */
  const openStep = (id: string | null): void => {
    const named = nameKeys(plan);
    const place = plan.steps.findIndex((step) => step.id === id);
    if (named !== plan) set(named);
    setOpen(named.steps[place]?.id ?? null);
  };
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
  const addLeg = (): void => {
    const taken = plan.legs.map(({ id }) => id);
    set({
      ...plan,
      legs: [...plan.legs, { id: keyOfWords('then', taken), name: { en: 'Then', pt: 'Depois' } }],
    });
  };
  const blanks = [...END_BLANKS, ...fields.filter(({ kind }) => kind !== 'heading').map(({ name }) => name)];
  return (
    <>
      <Suspense fallback={<Waiting />}>
        <PlanGraph
          {...{ plan, bad, isFixed }}
          onOpen={openStep}
          onConnect={connect}
          onDisconnect={disconnect}
        />
      </Suspense>
      {!isFixed && <small className={classes.quiet}>{t('services/plan/connect')}</small>}
      {plan.legs.map((leg) => (
        <PlanLeg
          key={leg.id}
          {...{ plan, leg, fields, isFixed, open, set, update, names, onName }}
          teamId={definition.teamId}
          onOpen={openStep}
        />
      ))}
      <BothLanguages
        label={t('services/plan/doneWords')}
        isFixed={isFixed}
        value={plan.doneWords ?? EMPTY}
        onChange={(doneWords) => set({ ...plan, doneWords })}
      />
      {!isFixed && (
        <>
          <small className={classes.quiet}>
            {t('services/plan/blanks', { blanks: blanks.map((blank) => `{${blank}}`).join(' ') })}
          </small>
          <div className={classes.leg}>
            <Button size="compact-sm" variant="subtle" onClick={addLeg}>
              {t('services/plan/addLeg')}
            </Button>
            <Button
              size="compact-sm"
              variant="subtle"
              color="gray"
              onClick={() => change({ plan: null, approvals: approvalsOf(plan) })}
            >
              {t('services/plan/end')}
            </Button>
          </div>
        </>
      )}
    </>
  );
}
