import type { RecordView } from '../../../contract/records';
import type { LocalText } from '../../../core/forms';
import { useWords } from '../../messages/useWords';
import { useChangeWords } from '../../ui/useChangeWords';

const isLocal = (value: unknown): value is LocalText =>
  typeof value === 'object' && value !== null && 'en' in value && 'pt' in value;

/** The words for an entry of the record: who did what. A blank that nothing fills is an ellipsis. */
export function useRecordWords(): (entry: RecordView) => string {
  const { t, local } = useWords();
  const toChanges = useChangeWords();
  const toBlanks = (data: Record<string, unknown>): Record<string, string> =>
    Object.fromEntries(
      Object.entries(data).flatMap(([blank, value]) =>
        isLocal(value)
          ? [[blank, local(value)]]
          : typeof value === 'string' || typeof value === 'number'
            ? [[blank, String(value)]]
            : [],
      ),
    );
  return ({ kind, actor, about, name, data, ticketNumber, changes }) => {
    const who = actor?.name ?? t('records/itself');
    const blanks = toBlanks(data);
    const said =
      ticketNumber === null
        ? `${who} ${t(`records/does/${kind}`, { ...blanks, name: name ?? '…', about: about?.name ?? '…' })}`
        : t(`entries/${kind}`, {
            ...{ ...blanks, who },
            // Only these say which fields changed; the rest is said by the kind.
            changes: kind === 'changed' || kind === 'undone' ? toChanges(changes) : '',
          });
    return said.replace(/\{\{\w+\}\}/g, '…');
  };
}
