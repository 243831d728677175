import type { Entry } from '../../contract/tickets';
import { useWords } from '../messages/useWords';
import { useValueWords } from './useValueWords';

/** Too much to be told in a line; it stands on the ticket. */
const UNTOLD = new Set(['answers', 'solution']);

/** What changed, field by field, from what to what. */
export function useChangeWords(): (changes: Entry['changes']) => string {
  const { t } = useWords();
  const valueOf = useValueWords();
  return (changes) => {
    // A whole day is said by its date.
    const isByDay = typeof changes.dueDate?.to === 'string';
    const fields = Object.entries(changes).filter(([field]) => !(isByDay && field === 'dueAt'));
    return fields
      .map(([field, change]) => {
        const name = t(`conflict/fields/${field}`);
        const [from, to] = [valueOf(field, change.from), valueOf(field, change.to)];
        if (UNTOLD.has(field) || from === to) return name;
        if (from === '') return t('entries/change/set', { name, to });
        return to === ''
          ? t('entries/change/cleared', { name, from })
          : t('entries/change/moved', { name, from, to });
      })
      .join('; ');
  };
}
