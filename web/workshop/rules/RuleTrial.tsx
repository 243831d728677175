import { Anchor, Button, Group, NumberInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { RuleBody, RuleEffect, RuleTrial as Trial } from '../../../contract/rules';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import classes from './Rules.module.css';
import { useRuleWords } from './useRuleWords';

const MOST_DAYS = 90;

function Outcome({ trial, days }: { trial: Trial; days: number }) {
  const { t, local, count: say } = useWords();
  const times = useTimes();
  const { sayEffect } = useRuleWords();
  const { count, tickets, fired, entries, more, fewer, before, after } = trial;
  const names = (rules: { name: Trial['before'][number]['name'] }[]): string =>
    rules.map(({ name }) => local(name)).join(', ');
  return (
    <div role="status">
      <p>
        <strong>
          {count === 0
            ? t('rules/trial/none', { days, entries: say(entries) })
            : `${t('rules/trial/count', { count, days })} ${t('rules/trial/tickets', { count: tickets })}`}
        </strong>
        {trial.isCut && <span> {t('rules/trial/cut', { entries: say(entries) })}</span>}
      </p>
      <ul className={classes.fired}>
        {fired.map(({ number, title, at, effects }, i) => (
          <li key={i}>
            <Anchor component={Link} size="sm" to={`/desk/everything/${number}`}>
              {number} · <bdi>{title}</bdi>
            </Anchor>
            <small className={classes.quiet}>
              {times.full(at)} · {effects.map((effect) => sayEffect(effect as RuleEffect)).join('; ')}
            </small>
          </li>
        ))}
      </ul>
      <ul className={classes.others}>
        {more.map(({ id, name, count: times_ }) => (
          <li key={`+${id}`}>{t('rules/trial/more', { name: local(name), count: times_ })}</li>
        ))}
        {fewer.map(({ id, name, count: times_ }) => (
          <li key={`-${id}`}>{t('rules/trial/fewer', { name: local(name), count: times_ })}</li>
        ))}
        {before.length > 0 && <li>{t('rules/trial/before', { names: names(before) })}</li>}
        {after.length > 0 && <li>{t('rules/trial/after', { names: names(after) })}</li>}
      </ul>
    </div>
  );
}

/** Tries a rule as it is written over what really happened. */
export function RuleTrial({ id, rule }: { id: string | null; rule: RuleBody }) {
  const { t } = useWords();
  const [days, setDays] = useState(30);
  const trial = useMutation({
    mutationFn: (tried: { rule: RuleBody; days: number }) =>
      call(api.rules.trial, { body: { id, ...tried } }),
  });
  const isStale = trial.variables !== undefined && trial.variables.rule !== rule;
  return (
    <section aria-label={t('rules/trial/title')} className={classes.trial}>
      <h2>{t('rules/trial/title')}</h2>
      <p className={classes.quiet}>{t('rules/trial/lead')}</p>
      <Group align="end" gap="xs">
        <NumberInput
          {...{ size: 'xs', w: 80, min: 1, max: MOST_DAYS, clampBehavior: 'strict', allowDecimal: false }}
          label={t('rules/trial/days')}
          value={days}
          onChange={(value) => setDays(Number(value) || 1)}
        />
        <Button
          size="xs"
          variant="default"
          loading={trial.isPending}
          onClick={() => trial.mutate({ rule, days })}
        >
          {t('rules/trial/run', { days })}
        </Button>
      </Group>
      {trial.isPending && <p role="status">{t('rules/trial/running')}</p>}
      <ProblemNote error={trial.error} />
      {trial.data && isStale && <p className={classes.quiet}>{t('rules/trial/changed')}</p>}
      {trial.data && <Outcome trial={trial.data} days={trial.variables.days} />}
    </section>
  );
}
