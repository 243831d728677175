import { Anchor } from '@mantine/core';
import { Link } from 'react-router';
import type { RuleView } from '../../../contract/rules';
import { asksFor } from '../../../core/conditions';
import '../../messages/rulesWords';
import { useWords } from '../../messages/useWords';
import classes from './Rules.module.css';
import { useRules } from './useRules';
import { useRuleWords } from './useRuleWords';

/** Whether a rule is about a service: it asks for it. */
export const isAboutService =
  (serviceId: string) =>
  ({ provided }: RuleView) =>
    asksFor(provided, 'serviceId', serviceId);

/** Whether a rule hears of what targets say as time runs out. */
export const hearsTargets = ({ trigger }: RuleView): boolean =>
  trigger.on === 'warned' ||
  trigger.on === 'late' ||
  (trigger.on === 'silence' && (trigger.since === 'warned' || trigger.since === 'late'));

/** The rules that have to do with something, on its own page, with the way to them. */
export function RulesAbout({
  what,
  isAbout,
}: {
  what: 'target' | 'service';
  isAbout(rule: RuleView): boolean;
}) {
  const { t, local } = useWords();
  const { sayRule } = useRuleWords();
  const { data } = useRules();
  const rules = data?.filter(isAbout);
  if (!rules) return null;
  return (
    <section className={classes.about} aria-label={t(`rules/about/${what}`)}>
      <h2>{t(`rules/about/${what}`)}</h2>
      {rules.length === 0 && <p className={classes.quiet}>{t(`rules/about/${what}None`)}</p>}
      <ul className={classes.fired}>
        {rules.map((rule) => (
          <li key={rule.id}>
            <Anchor component={Link} size="sm" to={`/workshop/rules/${rule.id}`}>
              {local(rule.name)}
            </Anchor>
            {!rule.isOn && ` · ${t('rules/about/off')}`}
            <small>{sayRule(rule)}</small>
          </li>
        ))}
      </ul>
      <Anchor component={Link} size="sm" to="/workshop/rules/new">
        {t('rules/new')}
      </Anchor>
    </section>
  );
}
