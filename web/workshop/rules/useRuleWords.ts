import type { RuleBody, RuleEffect } from '../../../contract/rules';
import { useTeams } from '../../api/queries';
import '../../messages/listsWords';
import '../../messages/rulesWords';
import { useWords } from '../../messages/useWords';
import { useFieldWords } from '../../ui/useFieldWords';
import { useChatRooms } from '../chat/Connections';
import { readRecurrence, readSpan } from './rhythm';

/** Says what a rule does. */
export function useEffectWords(): (effect: RuleEffect) => string {
  const { t, local } = useWords();
  const { fieldName, valueWords } = useFieldWords();
  const { data: teams = [] } = useTeams();
  const { data: rooms = [] } = useChatRooms();

  function sayWhom(effect: Extract<RuleEffect, { do: 'tell' | 'alsoTell' }>): string {
    const readers = effect.do === 'tell' ? effect.whom.map((reader) => t(`rules/readers/${reader}`)) : [];
    const people = (effect.personIds ?? []).map((id) => valueWords('requesterId', id));
    return [...readers, ...people].join(', ');
  }

  return function sayEffect(effect: RuleEffect): string {
    const words = 'words' in effect ? local(effect.words) : '';
    switch (effect.do) {
      case 'set':
        return t('rules/says/set', {
          field: fieldName(effect.field),
          to: valueWords(effect.field, effect.to),
        });
      case 'give': {
        const team = teams.find(({ id }) => id === effect.teamId);
        const group = team?.groups.find(({ id }) => id === effect.groupId)?.name;
        const person = team?.members.find(({ id }) => id === effect.personId)?.name;
        const to = [person, group, team && local(team.name)].filter(Boolean).join(', ');
        return t('rules/says/give', { to: to || effect.teamId });
      }
      case 'hold':
        return t('rules/says/hold', { whom: t(`heldFor/${effect.for}`) });
      case 'tell':
      case 'alsoTell':
        return t(`rules/says/${effect.do}`, { whom: sayWhom(effect), words });
      case 'room': {
        const room = rooms.find(({ roomId }) => roomId === effect.roomId)?.name ?? effect.roomId;
        return t('rules/says/room', { room, words });
      }
      case 'end':
        return t('rules/says/end', { as: t(`rules/ends/${effect.as}`), words });
      default:
        return t(`rules/says/${effect.do}`, { words });
    }
  };
}

/** Says rules as sentences. */
export function useRuleWords() {
  const { t } = useWords();
  const { fieldName, valueWords, toPhrase } = useFieldWords();
  const sayEffect = useEffectWords();

  function sayTrigger({ trigger }: Pick<RuleBody, 'trigger'>): string {
    if (trigger.on === 'time') {
      const rhythm = readRecurrence(trigger.every);
      const said = rhythm
        ? `${t(`rules/rhythms/${rhythm.rhythm}`)} ${t('rules/at')} ${rhythm.time}`
        : trigger.every;
      return t('rules/sentences/time', { rhythm: said.charAt(0).toUpperCase() + said.slice(1) });
    }
    if (trigger.on === 'silence') {
      const span = readSpan(trigger.after);
      const after = span ? `${span.amount} ${t(`rules/units/${span.unit}`)}` : trigger.after;
      return t('rules/sentences/silence', { after, since: t(`rules/events/${trigger.since}`) });
    }
    if (!('field' in trigger)) return t('rules/sentences/event', { event: t(`rules/events/${trigger.on}`) });
    const { field, from, to } = trigger;
    const kind = `changed${from === undefined ? '' : 'From'}${to === undefined ? '' : 'To'}`;
    return t(`rules/sentences/${kind}`, {
      field: fieldName(field),
      from: valueWords(field, from),
      to: valueWords(field, to),
    });
  }

  const isAny = ({ provided }: RuleBody): boolean => 'all' in provided && provided.all.length === 0;
  const sayRule = (rule: RuleBody): string =>
    [
      sayTrigger(rule),
      isAny(rule) ? '' : t('rules/sentences/provided', { what: toPhrase(rule.provided) }),
      t('rules/sentences/does', { what: rule.effects.map(sayEffect).join(t('rules/joins')) }),
      rule.isLast ? t('rules/sentences/last') : '',
    ].join('');
  return { sayRule, sayTrigger, sayEffect };
}
