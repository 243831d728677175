import type { PlanStepView, PlanView } from '../../contract/plans';
import { useNow } from '../api/clock';
import '../messages/planWords';
import { useWords } from '../messages/useWords';
import { useTimes } from '../ui/useTimes';

const REASONS = ['declined', 'noApprover'];

/** How a step stands, in a few words. */
export function useStepWords({ isShort = false } = {}): (step: PlanStepView) => string {
  const { t, local } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const because = (reason: string): string =>
    REASONS.includes(reason) ? t(`plan/reasons/${reason}`) : reason;
  return (step) => {
    const { state, reason, decides, slack, sending, waitsFor, notBefore, isWanted, finishedAt, ranking } =
      step;
    if (state === 'done')
      return finishedAt === null || isShort
        ? t('plan/state/done')
        : t('plan/doneAt', { when: times.when(finishedAt, now) });
    if (state === 'skipped') {
      if (reason === 'withdrawn') return t('plan/withdrawn');
      return reason ? t('plan/leftOut', { reason }) : t('plan/state/skipped');
    }
    if (state === 'failed')
      return reason ? t('plan/failedBecause', { reason: because(reason) }) : t('plan/state/failed');
    if (sending?.error && state === 'active')
      return t('plan/sending', { error: sending.error, count: sending.tries });
    if (sending && state === 'active') return t('plan/sent');
    if (ranking) return t('plan/ranked', ranking);
    if (!isWanted) return t('plan/notNeeded');
    const standing = decides ? t('plan/decides') : t('plan/toSpare', { span: times.span(slack / 60_000) });
    if (state === 'active' || (isShort && decides)) return standing;
    if (notBefore !== null && notBefore > now && waitsFor.length === 0)
      return t('plan/notBefore', { when: times.when(notBefore, now) });
    return waitsFor.length > 0 ? t('plan/waitsFor', { what: waitsFor.map(local).join(', ') }) : standing;
  };
}

/** Who does a step. */
export function useStepOwner(): (step: PlanStepView) => string {
  const { t, local } = useWords();
  return ({ team, assignee, kind }) => {
    if (team) return assignee ? `${assignee.name}, ${local(team.name)}` : local(team.name);
    return t(kind === 'automatic' ? 'plan/by/automatic' : 'plan/by/approval');
  };
}

/** What was promised and how it stands, in a sentence or two. */
export function usePlanSentence(): (plan: PlanView) => { words: string; isLate: boolean } {
  const { t, local } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  return ({ promisedAt, forecastAt, finishedAt, legs }) => {
    const promised = t('plan/promised', { when: times.when(promisedAt, now) });
    if (finishedAt !== null)
      return {
        words: `${promised} ${t('plan/done', { when: times.when(finishedAt, now) })}`,
        isLate: finishedAt > promisedAt,
      };
    const isLate = forecastAt > promisedAt;
    const driving = legs.flatMap(({ steps }) =>
      steps.filter(({ decides }) => decides).map(({ name }) => local(name)),
    );
    const stands = isLate ? t('plan/now', { when: times.when(forecastAt, now) }) : t('plan/inTime');
    const decided = isLate && driving[0] ? ` ${t('plan/decidedBy', { step: driving[0] })}` : '';
    return { words: `${promised} ${stands}${decided}`, isLate };
  };
}
