import type { ServiceCard } from '../../../contract/catalogue';
import { useWords } from '../../messages/useWords';
import { useTimes } from '../../ui/useTimes';

/** A service in one quiet line: how long it usually takes, who does it, who must agree. */
export function useServiceLine(): (service: ServiceCard) => string {
  const { t, local } = useWords();
  const times = useTimes();
  return ({ usually, teamName, needsApproval, hasPlan }) => {
    const days = usually ? Math.round(usually.minutes / 60 / usually.hoursPerDay) : 0;
    const time =
      usually &&
      (days >= 1
        ? t('time/usuallyDays', { count: days })
        : t('time/usually', { span: times.span(roundOff(usually.minutes)) }));
    const who = hasPlan ? t('ask/severalTeams') : local(teamName);
    return [time, who, needsApproval ? t('ask/needsManager') : null].filter(Boolean).join(' · ');
  };
}

/** Nobody is helped by minutes that nobody means. */
function roundOff(minutes: number): number {
  const step = minutes > 90 ? 30 : 5;
  return Math.max(step, Math.round(minutes / step) * step);
}
