import type { Ticket } from '../../../contract/tickets';
import '../../messages/planWords';
import { useWords } from '../../messages/useWords';

type Leg = Pick<NonNullable<Ticket['plan']>['legs'][number], 'name'> & {
  steps: Pick<NonNullable<Ticket['plan']>['legs'][number]['steps'][number], 'state' | 'kind'>[];
};

/** What goes on of a plan: as long as someone has yet to agree they are named, and work alone is “under way”. */
export function useLegWords(): (leg: Leg | null | undefined, approvers: string[]) => string {
  const { t, local } = useWords();
  return (leg, approvers) => {
    if (!leg) return '';
    const active = leg.steps.filter(({ state }) => state === 'active');
    const approver = approvers.join(', ');
    if (approver === '' || !active.some(({ kind }) => kind === 'approval'))
      return t('plan/underWay', { leg: local(leg.name) });
    if (active.every(({ kind }) => kind === 'approval')) return t('sentences/held.approval', { approver });
    return t('plan/underWayAgreeing', { leg: local(leg.name), approver });
  };
}
