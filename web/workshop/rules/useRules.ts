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
export function useOrderRules() {
  const { t } = useWords();
  const client = useQueryClient();
  const renew = useRenewRules();
  const order = async (ids: string[]): Promise<void> => {
    await call(api.rules.order, { body: { ids } });
    await renew();
  };
  return useMutation({
    mutationFn: ({ ids }: { ids: string[]; before: string[] }) => order(ids),
    onMutate: ({ ids }) => {
      client.setQueryData<RuleView[]>(KEY, (rules = []) =>
        ids.flatMap((id) => rules.find((rule) => rule.id === id) ?? []),
      );
    },
    onSuccess: (_, { before }) => showUndo(t('rules/ordered'), t('common/undo'), () => order(before)),
    onError: renew,
  });
}
