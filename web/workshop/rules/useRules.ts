import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { RuleView } from '../../../contract/rules';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';
import { showUndo } from '../../ui/showUndo';

const KEY = ['rules'] as const;

/** All rules in their order. */
export const useRules = () => useQuery({ queryKey: KEY, queryFn: () => call(api.rules.list) });

/** Lets all that shows rules be asked anew. */
export function useRenewRules(): () => Promise<unknown> {
  const client = useQueryClient();
  return () => client.invalidateQueries({ queryKey: KEY });
}

/** Switches a rule on or off, with the way back. */
export function useSwitchRule() {
  const { t, local } = useWords();
  const renew = useRenewRules();
  const turn = async ({ id }: RuleView, version: number, isOn: boolean): Promise<number> => {
    const saved = await call(api.rules.switch, { params: { id }, body: { version, isOn } });
    await renew();
    return saved.version;
  };
  return useMutation({
    mutationFn: ({ rule, isOn }: { rule: RuleView; isOn: boolean }) => turn(rule, rule.version, isOn),
    onSuccess: (version, { rule, isOn }) =>
      showUndo(
        t(isOn ? 'rules/switchedOn' : 'rules/switchedOff', { name: local(rule.name) }),
        t('common/undo'),
        () => turn(rule, version, !isOn),
      ),
    onError: renew,
  });
}

/** Puts the rules in another order, with the way back. */
export function useOrderRules(onKept: () => void) {
  const { t } = useWords();
  const renew = useRenewRules();
  const order = async (ids: string[]): Promise<void> => {
    await call(api.rules.order, { body: { ids } });
    await renew();
  };
  return useMutation({
    mutationFn: ({ ids }: { ids: string[]; before: string[] }) => order(ids),
    onSuccess: (_, { before }) => {
      onKept();
      showUndo(t('rules/ordered'), t('common/undo'), () => order(before));
    },
  });
}

/** What another order would have made otherwise; null: it is the one that holds. */
export const useOrderEffect = (ids: string[] | null) =>
  useQuery({
    queryKey: ['rules', 'order', ids],
    enabled: ids !== null,
    gcTime: 0,
    queryFn: () => call(api.rules.orderEffect, { body: { ids: ids! } }),
  });
