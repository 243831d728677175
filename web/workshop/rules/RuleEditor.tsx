import { Button, Checkbox, Group, Select } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import type { RuleBody, RuleView } from '../../../contract/rules';
import { checkRule, RULE_FIELDS, type Effect } from '../../../core/rules';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useMe, useTeams } from '../../api/queries';
import { useDraft } from '../../api/useDraft';
import { useWords } from '../../messages/useWords';
import { ConditionEditor, type ConditionScope } from '../../desk/worklist/ConditionEditor';
import { ProblemNote } from '../../ui/ProblemNote';
import { useProblems } from '../../ui/useProblems';
import { BothLanguages } from '../../ui/BothLanguages';
import { Effects } from './Effects';
import classes from './Rules.module.css';
import { RuleTrial } from './RuleTrial';
import { TriggerSentence } from './TriggerSentence';
import { useRenewRules, useSwitchRule } from './useRules';

const SCOPE: ConditionScope = {
  ...{ names: RULE_FIELDS, withWords: true, firstGroup: ['priority', 'urgency'] },
  lead: { none: 'rules/anyTicket', where: 'rules/whenLead' },
};

/** Keeps a rule, or makes it; what was written is forgotten once it is kept. */
function useKeeping(rule: RuleView | null, { body, clear }: { body: RuleBody; clear(): void }) {
  const { t, local } = useWords();
  const navigate = useNavigate();
  const renew = useRenewRules();
  const save = useMutation({
    mutationFn: async () => {
      if (rule === null) return (await call(api.rules.create, { body })).id;
      await call(api.rules.update, { params: { id: rule.id }, body: { ...body, version: rule.version } });
      return rule.id;
    },
    onSuccess: async (id) => {
      const said = rule === null ? 'rules/made' : 'rules/saved';
      notifications.show({ message: t(said, { name: local(body.name) }) });
      clear();
      await renew();
      if (rule === null) await navigate(`/workshop/rules/${id}`, { replace: true });
    },
  });
  const remove = useMutation({
    mutationFn: () => call(api.rules.remove, { params: { id: rule!.id } }),
    onSuccess: async () => {
      notifications.show({ message: t('rules/removed', { name: local(body.name) }) });
      await navigate('/workshop/rules');
      await renew();
    },
  });
  return { save, remove };
}

function RuleName({
  body,
  isFixed,
  set,
}: {
  body: RuleBody;
  isFixed: boolean;
  set(change: Partial<RuleBody>): void;
}) {
  const { t, local } = useWords();
  const me = useMe();
  const { data: teams = [] } = useTeams();
  const mine = teams.filter(({ mayEdit, id }) => mayEdit || id === body.teamId);
  return (
    <>
      <BothLanguages
        label={t('rules/name')}
        value={body.name}
        isFixed={isFixed}
        onChange={(name) => set({ name })}
      />
      <Select
        {...{ size: 'xs', w: 260, mt: 'xs', allowDeselect: false, readOnly: isFixed }}
        label={t('rules/isFor')}
        value={body.teamId ?? ''}
        data={[
          ...(me.isAdministrator || body.teamId === null ? [{ value: '', label: t('rules/everyone') }] : []),
          ...mine.map(({ id, name }) => ({ value: id, label: local(name) })),
        ]}
        onChange={(teamId) => set({ teamId: teamId || null })}
      />
    </>
  );
}

/** Writes a rule as a sentence; what is written is kept until it is saved. */
export function RuleEditor({ rule, fresh }: { rule: RuleView | null; fresh: RuleBody }) {
  const { t } = useWords();
  const [body, setBody, clear] = useDraft<RuleBody>(`rule:${rule?.id ?? 'new'}:${rule?.version ?? 0}`, fresh);
  const { save, remove } = useKeeping(rule, { body, clear });
  const turn = useSwitchRule();
  const isFixed = rule !== null && !rule.mayEdit;
  const set = (change: Partial<RuleBody>): void => setBody({ ...body, ...change });
  const faults = checkRule({
    ...{ ...body, id: rule?.id ?? '', order: 0, isOn: true },
    effects: body.effects as Effect[],
  });
  const problems = Object.entries(useProblems()(save.error)).filter(([field]) => field !== 'rule');
  const isSaved = rule !== null && body === fresh;
  return (
    <div className={classes.sides}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate();
        }}
      >
        <RuleName {...{ body, isFixed, set }} />
        <h2>{t('rules/trigger')}</h2>
        <TriggerSentence {...{ trigger: body.trigger, isFixed }} onChange={(trigger) => set({ trigger })} />
        <h2>{t('rules/provided')}</h2>
        <fieldset disabled={isFixed} style={{ border: 0, padding: 0, margin: 0 }}>
          <ConditionEditor
            scope={SCOPE}
            condition={body.provided}
            onChange={(provided) => set({ provided })}
          />
        </fieldset>
        <h2>{t('rules/effects')}</h2>
        <Effects {...{ effects: body.effects, isFixed }} onChange={(effects) => set({ effects })} />
        <Checkbox
          {...{ mt: 'md', size: 'xs', label: t('rules/isLast'), checked: body.isLast, disabled: isFixed }}
          onChange={({ target }) => set({ isLast: target.checked })}
        />
        {body.effects.length > 0 &&
          faults.map((fault) => (
            <p key={fault} className={classes.fault}>
              {t(`rules/faults/${fault}`)}
            </p>
          ))}
        {problems.map(([field, words]) => (
          <p key={field} role="alert" className={classes.fault}>
            {words}
          </p>
        ))}
        {save.error && problems.length === 0 && <ProblemNote error={save.error} />}
        <ProblemNote error={remove.error ?? turn.error} />
        {isFixed ? (
          <p className={classes.quiet}>{t('workshop/lookOnly')}</p>
        ) : (
          <Group mt="md" gap="xs">
            <Button size="xs" type="submit" loading={save.isPending} disabled={faults.length > 0 || isSaved}>
              {t('common/save')}
            </Button>
            {rule && (
              <Button
                {...{ size: 'xs', variant: 'default', loading: turn.isPending, disabled: !isSaved }}
                onClick={() => turn.mutate({ rule, isOn: !rule.isOn })}
              >
                {t(rule.isOn ? 'rules/turnOff' : 'rules/turnOn')}
              </Button>
            )}
            {rule && (
              <Button size="xs" variant="subtle" onClick={() => remove.mutate()}>
                {t('rules/remove')}
              </Button>
            )}
          </Group>
        )}
      </form>
      {!isFixed && <RuleTrial id={rule?.id ?? null} rule={body} />}
    </div>
  );
}
