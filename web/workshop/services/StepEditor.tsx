import { Button, MultiSelect, NativeSelect, NumberInput, Textarea, TextInput } from '@mantine/core';
import { readDuration } from '../../../core/calendar';
import type { FormField } from '../../../core/forms';
import { STEP_KINDS, type AutomaticAction, type ServiceStep } from '../../../core/plans';
import { useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { Agreeing } from './Agreeing';
import type { Names } from './ApprovalsPart';
import { BothLanguages } from '../../ui/BothLanguages';
import { ConditionSentence } from './ConditionSentence';
import classes from './services.module.css';

type Props = Names & {
  step: ServiceStep;
  /** The others of its part. */
  beside: ServiceStep[];
  fields: FormField[];
  isFixed: boolean;
  onChange(step: ServiceStep): void;
  onRemove(): void;
};

const ACTIONS: Record<AutomaticAction['do'], AutomaticAction> = {
  wait: { do: 'wait' },
  setField: { do: 'setField', field: '', value: '' },
  send: { do: 'send', address: '' },
};

/** An effort in hours, and back. */
const toHours = (effort: string | undefined): number | '' => {
  if (effort === undefined) return '';
  const { days, hours, minutes } = readDuration(effort) ?? { days: 0, hours: 0, minutes: 0 };
  return days * 8 + hours + minutes / 60;
};
const fromHours = (hours: number): string | undefined => {
  const minutes = Math.round(hours * 60);
  return minutes > 0
    ? `PT${Math.floor(minutes / 60)}H${minutes % 60 ? `${minutes % 60}M` : ''}`.replace('T0H', 'T')
    : undefined;
};

/** Another kind of step keeps what all kinds have. */
function toKind(step: ServiceStep, kind: ServiceStep['kind'], teamId: string): ServiceStep {
  const { id, leg, name, after, when, effort, notBefore } = step;
  const common = {
    id,
    leg,
    name,
    ...(after && { after }),
    ...(when && { when }),
    ...(effort && { effort }),
    ...(notBefore && { notBefore }),
  };
  switch (kind) {
    case 'task':
    case 'ranking':
      return { ...common, kind, teamId };
    case 'approval':
      return {
        ...common,
        kind,
        refs: [{ manager: 'ofRequester' }],
        needs: { kind: 'any' },
        declineBy: 'any',
      };
    case 'automatic':
      return { ...common, kind, action: { do: 'wait' } };
  }
}

/** All that can be said of one step. */
export function StepEditor({ step, beside, fields, names, onName, isFixed, onChange, onRemove }: Props) {
  const { t, local } = useWords();
  const { data: teams = [] } = useTeams();
  const set = (part: object): void =>
    onChange(
      Object.fromEntries(
        Object.entries({ ...step, ...part }).filter(([, value]) => value !== undefined),
      ) as ServiceStep,
    );
  const dates = fields.filter(({ kind }) => kind === 'date');
  return (
    <div className={classes.details} style={{ paddingInlineStart: 2 }}>
      <BothLanguages
        label={t('services/plan/name')}
        isFixed={isFixed}
        value={step.name}
        onChange={(name) => set({ name })}
      />
      <NativeSelect
        size="xs"
        label={t('services/plan/kind')}
        disabled={isFixed}
        value={step.kind}
        data={STEP_KINDS.map((value) => ({
          value,
          label: t(`services/plan/kinds/${value}`),
        }))}
        onChange={({ target }) =>
          onChange(toKind(step, target.value as ServiceStep['kind'], teams[0]?.id ?? ''))
        }
      />
      {(step.kind === 'task' || step.kind === 'ranking') && (
        <NativeSelect
          size="xs"
          label={t(step.kind === 'task' ? 'services/plan/team' : 'services/plan/rankedBy')}
          disabled={isFixed}
          value={step.teamId}
          data={[
            { value: '', label: '' },
            ...teams.map(({ id, name }) => ({ value: id, label: local(name) })),
          ]}
          onChange={({ target }) => set({ teamId: target.value, groupId: undefined })}
        />
      )}
      {step.kind === 'automatic' && (
        <NativeSelect
          size="xs"
          label={t('services/plan/does')}
          disabled={isFixed}
          value={step.action.do}
          data={(['wait', 'setField', 'send'] as const).map((value) => ({
            value,
            label: t(`services/plan/action/${value}`),
          }))}
          onChange={({ target }) => set({ action: ACTIONS[target.value as AutomaticAction['do']] })}
        />
      )}
      {step.kind === 'automatic' && step.action.do === 'send' && (
        <TextInput
          className={classes.whole ?? ''}
          size="xs"
          label={t('services/plan/address')}
          readOnly={isFixed}
          value={step.action.address}
          onChange={({ target }) => set({ action: { do: 'send', address: target.value } })}
        />
      )}
      {step.kind === 'automatic' && step.action.do === 'setField' && (
        <SetField action={step.action} isFixed={isFixed} onChange={(action) => set({ action })} />
      )}
      <NumberInput
        size="xs"
        label={t('services/plan/effort')}
        readOnly={isFixed}
        min={0}
        value={toHours(step.effort)}
        onChange={(value) => set({ effort: fromHours(Number(value) || 0) })}
      />
      <MultiSelect
        size="xs"
        label={t('services/plan/after')}
        readOnly={isFixed}
        data={beside.map(({ id, name }) => ({ value: id, label: local(name) || id }))}
        value={step.after ?? []}
        onChange={(after) => set({ after: after.length > 0 ? after : undefined })}
      />
      <NativeSelect
        size="xs"
        label={t('services/plan/notBefore')}
        disabled={isFixed}
        value={step.notBefore?.field ?? ''}
        data={[
          { value: '', label: t('services/form/always') },
          ...dates.map(({ name, label }) => ({ value: name, label: local(label) || name })),
        ]}
        onChange={({ target }) =>
          set({
            notBefore: target.value
              ? { field: target.value, daysBefore: step.notBefore?.daysBefore ?? 0 }
              : undefined,
          })
        }
      />
      {step.notBefore && (
        <NumberInput
          size="xs"
          label={t('services/plan/daysBefore')}
          readOnly={isFixed}
          value={step.notBefore.daysBefore}
          onChange={(value) =>
            set({ notBefore: { ...step.notBefore, daysBefore: Math.round(Number(value) || 0) } })
          }
        />
      )}
      <p className={`${classes.sentence} ${classes.whole}`} style={{ margin: 0 }}>
        <ConditionSentence
          lead={{ plain: t('services/leads/done'), when: t('services/leads/doneWhen') }}
          none={t('services/form/always')}
          withRequest
          condition={step.when}
          fields={fields}
          isFixed={isFixed}
          onChange={(when) => set({ when })}
        />
      </p>
      {step.kind === 'approval' && (
        <p className={`${classes.sentence} ${classes.whole}`} style={{ margin: 0 }}>
          <Agreeing agreed={step} {...{ fields, names, isFixed, onName }} onChange={set} />
        </p>
      )}
      {step.kind === 'task' && (
        <Textarea
          className={classes.whole ?? ''}
          size="xs"
          autosize
          label={t('services/plan/checklist')}
          readOnly={isFixed}
          defaultValue={step.checklist?.map(local).join('\n') ?? ''}
          onBlur={({ target }) => {
            const lines = target.value
              .split('\n')
              .map((line) => line.trim())
              .filter(Boolean);
            // A line that stays keeps its words in the other language.
            const kept = (line: string) =>
              step.checklist?.find((each) => local(each) === line) ?? { en: line, pt: line };
            set({ checklist: lines.length > 0 ? lines.map(kept) : undefined });
          }}
        />
      )}
      {!isFixed && (
        <Button
          className={classes.whole ?? ''}
          size="compact-sm"
          variant="subtle"
          color="gray"
          style={{ justifySelf: 'start' }}
          onClick={onRemove}
        >
          {t('services/plan/remove')}
        </Button>
      )}
    </div>
  );
}

type SetAction = Extract<AutomaticAction, { do: 'setField' }>;
function SetField({
  action,
  isFixed,
  onChange,
}: {
  action: SetAction;
  isFixed: boolean;
  onChange(action: SetAction): void;
}) {
  const { t } = useWords();
  return (
    <>
      <TextInput
        size="xs"
        label={t('services/plan/field')}
        readOnly={isFixed}
        value={action.field}
        onChange={({ target }) => onChange({ ...action, field: target.value })}
      />
      <TextInput
        size="xs"
        label={t('services/plan/value')}
        readOnly={isFixed}
        value={String(action.value)}
        onChange={({ target }) => onChange({ ...action, value: target.value })}
      />
    </>
  );
}
