import { Button } from '@mantine/core';
import type { FormField } from '../../../core/forms';
import { moveLeg, newStep, orderSteps, type ServicePlan, type ServiceStep } from '../../../core/plans';
import { useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { InlineText } from '../../ui/Inline';
import { SortableItem, SortableList } from '../../ui/Sortable';
import type { Names } from './ApprovalsPart';
import classes from './services.module.css';
import { StepEditor } from './StepEditor';

type Leg = ServicePlan['legs'][number];
type Props = Names & {
  plan: ServicePlan;
  leg: Leg;
  fields: FormField[];
  teamId: string;
  isFixed: boolean;
  /** Which step is open, by its id. */
  open: string | null;
  onOpen(id: string | null): void;
  set(plan: ServicePlan): void;
  update(step: ServiceStep): void;
};

function withoutStep(plan: ServicePlan, id: string): ServicePlan {
  const steps = plan.steps
    .filter((step) => step.id !== id)
    .map(({ after, ...step }) => {
      const left = after?.filter((each) => each !== id);
      return { ...step, ...(left && left.length > 0 && { after: left }) };
    });
  return { ...plan, steps };
}

/** The name of a part, and what is done with the part as a whole. */
function LegHead({ plan, leg, teamId, isFixed, onOpen, set }: Omit<Props, 'open' | 'fields' | 'update'>) {
  const { t } = useWords();
  const place = plan.legs.findIndex(({ id }) => id === leg.id);
  const n = place + 1;
  const rename = (name: Leg['name']): void =>
    set({ ...plan, legs: plan.legs.map((each) => (each.id === leg.id ? { ...each, name } : each)) });
  const acts = [
    {
      words: t('services/plan/addStep'),
      act() {
        const step = newStep(plan, leg.id, teamId);
        set({ ...plan, steps: [...plan.steps, step] });
        onOpen(step.id);
      },
    },
    ...(place > 0 ? [{ words: t('services/plan/earlier'), act: () => set(moveLeg(plan, leg.id, -1)) }] : []),
    ...(n < plan.legs.length
      ? [{ words: t('services/plan/later'), act: () => set(moveLeg(plan, leg.id, 1)) }]
      : []),
    {
      words: t('services/plan/removeLeg'),
      act: () =>
        set({
          ...plan,
          legs: plan.legs.filter(({ id }) => id !== leg.id),
          steps: plan.steps.filter((step) => step.leg !== leg.id),
        }),
    },
  ];
  return (
    <div className={classes.leg}>
      <span className={classes.quiet}>{t('services/plan/leg', { n })}</span>
      {(['en', 'pt'] as const).map((language) => (
        <InlineText
          key={language}
          label={`${t('services/plan/leg', { n })}, ${language}`}
          isFixed={isFixed}
          value={leg.name[language]}
          onChange={(name) => rename({ ...leg.name, [language]: name })}
        />
      ))}
      {!isFixed &&
        acts.map(({ words, act }, i) => (
          <Button
            key={words}
            size="compact-xs"
            variant="subtle"
            {...(i > 0 && { color: 'gray' })}
            onClick={act}
          >
            {words}
          </Button>
        ))}
    </div>
  );
}

/** One part of a plan as a list: its steps in their order, each a line that opens. */
export function PlanLeg(props: Props) {
  const { plan, leg, fields, isFixed, open, onOpen, set, update, names, onName } = props;
  const { t, local } = useWords();
  const { data: teams = [] } = useTeams();
  const steps = plan.steps.filter((step) => step.leg === leg.id);
  const nameOf = (step: ServiceStep): string => local(step.name) || step.id;
  const lineOf = (step: ServiceStep): string =>
    step.kind === 'task' || step.kind === 'ranking'
      ? local(teams.find(({ id }) => id === step.teamId)?.name ?? { en: '', pt: '' })
      : t(`services/plan/kinds/${step.kind}`);
  return (
    <div>
      <LegHead {...props} />
      <SortableList ids={steps.map(({ id }) => id)} onOrder={(ids) => set(orderSteps(plan, ids))}>
        <ul className={classes.questions}>
          {steps.map((step) => (
            <SortableItem
              key={step.id}
              id={step.id}
              className={classes.question}
              isFixed={isFixed}
              isOpen={open === step.id}
              label={t('services/form/move', { name: nameOf(step) })}
            >
              {(grip) => (
                <div className={classes.step} data-kind={step.kind}>
                  {grip}
                  <button
                    type="button"
                    aria-expanded={open === step.id}
                    aria-label={t('services/plan/change', { name: nameOf(step) })}
                    onClick={() => onOpen(open === step.id ? null : step.id)}
                  >
                    {nameOf(step)}
                  </button>{' '}
                  <small className={classes.quiet}>{lineOf(step)}</small>
                  {open === step.id && (
                    <StepEditor
                      {...{ step, fields, names, onName, isFixed }}
                      beside={steps.filter(({ id }) => id !== step.id)}
                      onChange={update}
                      onRemove={() => set(withoutStep(plan, step.id))}
                    />
                  )}
                </div>
              )}
            </SortableItem>
          ))}
        </ul>
      </SortableList>
    </div>
  );
}
