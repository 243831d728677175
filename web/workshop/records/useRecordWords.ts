import type { RecordView } from '../../../contract/records';
import { useWords } from '../../messages/useWords';
import { useChangeWords } from '../../ui/useChangeWords';

/** The words for an entry of the record: who did what. Blanks that nothing fills are left out. */
export function useRecordWords(): (entry: RecordView) => string {
  const { t } = useWords();
  const toChanges = useChangeWords();
  return ({ kind, actor, about, name, data, ticketNumber, changes }) => {
    const who = actor?.name ?? t('records/itself');
    const text = (value: unknown): string =>
      typeof value === 'string' || typeof value === 'number' ? String(value) : '';
    const said =
      ticketNumber === null
        ? `${who} ${t(`records/does/${kind}`, {
            ...{ name: name ?? '', about: about?.name ?? '', number: text(data.number) },
            ...{ address: text(data.address), what: text(data.what), why: text(data.why) },
          })}`
        : t(`entries/${kind}`, { who, changes: toChanges(changes) });
    return said.replace(/\s*[“"]?\{\{\w+\}\}[”"]?/g, '');
  };
}
