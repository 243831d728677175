import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { Target } from '../../../contract/targets';
import type { TargetNotice } from '../../../core/targets';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';
import { showUndo } from '../../ui/showUndo';

/** Switches a promise on or off, or changes what it does as its time runs out. */
export function useUpdateTarget({ id, version, definition }: Target) {
  const { t } = useWords();
  const client = useQueryClient();
  const patch = async (change: { version: number; isOn?: boolean; notices?: TargetNotice[] }) => {
    const saved = await call(api.targets.update, { params: { id }, body: change });
    await client.invalidateQueries({ queryKey: ['targets'] });
    return saved.version;
  };
  return useMutation({
    mutationFn: (change: { isOn?: boolean; notices?: TargetNotice[] }) => patch({ version, ...change }),
    onSuccess: (saved, { isOn }) => {
      if (isOn === undefined) return;
      showUndo(
        t(`workshop/target/${isOn ? 'switchedOn' : 'switchedOff'}`, { name: definition.name }),
        t('common/undo'),
        () => patch({ version: saved, isOn: !isOn }),
      );
    },
  });
}
