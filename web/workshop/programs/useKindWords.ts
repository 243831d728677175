import { toEventType, WEBHOOK_KINDS } from '../../../core/webhooks';
import { useWords } from '../../messages/useWords';

/** Kinds of events to choose from: in the words of a ticket's history, without what fills their blanks, and by type. */
export function useKindWords(): { value: string; label: string }[] {
  const { t } = useWords();
  return WEBHOOK_KINDS.map((kind) => ({
    value: kind,
    label: `${t(`entries/${kind}`, { who: '…' }).replace(/\{\{\w+\}\}/g, '…')} (${toEventType(kind)})`,
  }));
}
