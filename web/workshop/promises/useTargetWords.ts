import type { Target } from '../../../contract/targets';
import type { TargetNotice } from '../../../core/targets';
import { readDuration } from '../../../core/calendar';
import { BREACH_PERCENT } from '../../../core/targets';
import { useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { useCalendarList } from '../queries';

/** Limits, hours and notices of a promise in words. */
export function useTargetWords() {
  const { t, local } = useWords();
  const { data: teams = [] } = useTeams();
  const { data: calendars = [] } = useCalendarList();
  const teamName = (id: string): string =>
    local(teams.find((team) => team.id === id)?.name ?? { en: id, pt: id });

  function duration(text: string): string {
    const { days = 0, hours = 0, minutes = 0 } = readDuration(text) ?? {};
    const parts = [
      days > 0 && t('time/d', { n: days }),
      hours > 0 && t('time/h', { n: hours }),
      minutes > 0 && t('time/min', { n: minutes }),
    ];
    return parts.filter(Boolean).join(' ') || text;
  }

  /** '15 min (P1), 30 min (P2), otherwise 8 h' */
  function limits({ definition }: Target): string {
    const parts = definition.limits.map(({ when, duration: text }) => {
      if (!when)
        return definition.limits.length === 1
          ? duration(text)
          : `${t('workshop/target/otherwise')} ${duration(text)}`;
      const value = 'value' in when ? when.value : '';
      return `${duration(text)} (${String(value)})`;
    });
    return t('workshop/target/within', { limits: parts.join(', ') });
  }

  function hours({ definition }: Target): string {
    const ids = [...new Set(definition.calendars.map(({ calendarId }) => calendarId))];
    const names = ids.map((id) => calendars.find((calendar) => calendar.id === id)?.spec.name ?? id);
    return t('workshop/target/hours', { calendars: names.join(', ') });
  }

  function notice({ percent, tell, words, handTo, raisesPriority }: TargetNotice): string {
    const who = tell.map((reader) => t(`workshop/target/readers/${reader}`)).join(', ');
    const parts = [
      who ? t('workshop/target/tells', { who }) : t('workshop/target/tellsNobody'),
      words && t('workshop/target/says', { words: local(words) }),
      handTo && t('workshop/target/hands', { team: teamName(handTo.teamId) }),
      raisesPriority && t('workshop/target/raises'),
    ];
    const at =
      percent === BREACH_PERCENT
        ? t('workshop/target/atBreach')
        : t('workshop/target/atPercent', { percent });
    return `${at}: ${parts.filter(Boolean).join(', ')}`;
  }
  return { limits, hours, notice, teamName, teams };
}
