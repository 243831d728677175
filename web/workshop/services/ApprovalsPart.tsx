import { Button, Checkbox } from '@mantine/core';
import type { ProcessStep } from '../../../core/approvals';
import type { FormField } from '../../../core/forms';
import { agreeFirst, type ServicePlan } from '../../../core/plans';
import { useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { InlineRemove } from '../../ui/Inline';
import { PersonPicker } from '../../ui/PersonPicker';
import { Agreeing, type Agreed } from './Agreeing';
import { BothLanguages } from '../../ui/BothLanguages';
import { ConditionSentence } from './ConditionSentence';
import classes from './services.module.css';
import type { PartProps } from './useService';

export type Names = { names: Map<string, string>; onName(id: string, name: string): void };

/** What an approval begins with: the first asks the manager, the second the leads of the team; of a third nothing is known. */
function newApproval(place: number, teamId: string): ProcessStep {
  const known: Pick<ProcessStep, 'name' | 'refs'>[] = [
    { name: { en: 'Your manager agrees', pt: 'A sua chefia concorda' }, refs: [{ manager: 'ofRequester' }] },
    {
      name: { en: 'Those who lead the team agree', pt: 'Quem lidera a equipa concorda' },
      refs: [{ team: teamId, only: 'leads' }],
    },
  ];
  return {
    ...(known[place] ?? { name: { en: '', pt: '' }, refs: [] }),
    ...{ needs: { kind: 'any' }, declineBy: 'any', silence: { after: 'P2D', then: 'passUp' } },
  };
}

/** What was set, without what was taken away. */
function merge<T extends object>(before: T, part: object): T {
  return Object.fromEntries(
    Object.entries({ ...before, ...part }).filter(([, value]) => value !== undefined),
  ) as T;
}

/** Who must agree before anyone works on it, step after step. */
export function ApprovalsPart({ definition, isFixed, change, names, onName }: PartProps & Names) {
  const { t, local } = useWords();
  const { data: teams = [] } = useTeams();
  const fields = definition.form.fields as FormField[];
  const steps = definition.approvals as ProcessStep[];
  const plan = definition.plan as ServicePlan | null;
  const { fallbackApproverId } = definition;
  const set = (next: ProcessStep[]): void => change({ approvals: next });
  const update = (i: number, part: object): void =>
    set(steps.map((step, at) => (at === i ? merge(step, part) : step)));
  const team = teams.find(({ id }) => id === definition.teamId);
  return (
    <>
      {plan ? (
        <span className={classes.quiet}>{t('services/approvals/asPlan')}</span>
      ) : (
        steps.length === 0 && (
          <span className={classes.quiet}>
            {t('services/approvals/none', { team: team ? local(team.name) : '' })}
          </span>
        )
      )}
      {plan && steps.length > 0 && !isFixed && (
        <Button
          size="compact-sm"
          variant="subtle"
          onClick={() => change({ approvals: [], plan: agreeFirst(plan, steps) })}
        >
          {t('services/approvals/intoPlan')}
        </Button>
      )}
      {steps.map((step, i) => (
        <div key={i} className={classes.sentence}>
          {t(i === 0 ? 'services/approvals/first' : 'services/approvals/then')}{' '}
          <Agreeing
            agreed={step}
            {...{ fields, names, isFixed, onName }}
            onChange={(part: Partial<Agreed>) => update(i, part)}
          />{' '}
          <ConditionSentence
            lead={{ plain: t('services/leads/agreed'), when: t('services/leads/agreedWhen') }}
            none={t('services/form/always')}
            withRequest
            condition={step.when}
            fields={fields}
            isFixed={isFixed}
            onChange={(when) => update(i, { when })}
          />
          .
          {i > 0 && (
            <Checkbox
              size="xs"
              label={t('services/approvals/carry')}
              checked={step.carry === true}
              disabled={isFixed}
              onChange={({ target }) => update(i, { carry: target.checked ? true : undefined })}
            />
          )}
          <BothLanguages
            label={t('services/approvals/name')}
            isFixed={isFixed}
            value={step.name}
            onChange={(name) => update(i, { name })}
          />
          {!isFixed && (
            <Button
              size="compact-xs"
              variant="subtle"
              color="gray"
              onClick={() => set(steps.filter((_, at) => at !== i))}
            >
              {t('services/approvals/remove')}
            </Button>
          )}
        </div>
      ))}
      {!isFixed && !plan && (
        <Button
          size="compact-sm"
          variant="subtle"
          onClick={() => set([...steps, newApproval(steps.length, definition.teamId)])}
        >
          {t('services/approvals/add')}
        </Button>
      )}
      <p className={classes.sentence} style={{ margin: 0 }}>
        {t('services/approvals/fallback')}:{' '}
        <strong>
          {fallbackApproverId === null
            ? t('services/approvals/fallbackUsual')
            : (names.get(fallbackApproverId) ?? fallbackApproverId)}
        </strong>
        {fallbackApproverId !== null && !isFixed && (
          <InlineRemove
            name={t('services/approvals/fallback')}
            onRemove={() => change({ fallbackApproverId: null })}
          />
        )}
      </p>
      {!isFixed && (
        <PersonPicker
          label={t('services/approvals/fallback')}
          onPick={({ id, name }) => {
            onName(id, name);
            change({ fallbackApproverId: id });
          }}
        />
      )}
    </>
  );
}
