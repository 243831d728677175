import { LOCALES, type LocalText } from '../../core/forms';
import { useWords } from '../messages/useWords';
import { dateFormat } from './dateFormat';
import { useTimes } from './useTimes';

/** Fields whose values have words in the catalogue, by where these stand. */
const WORDED: Record<string, string> = {
  state: 'states',
  heldFor: 'heldFor',
  impact: 'impacts',
  urgency: 'urgencies',
};
const INSTANTS = new Set(['dueAt', 'remindAt', 'heldUntil', 'resolvedAt', 'closedAt']);

/** The value of a ticket's field as its reader would say it; empty: there is none. */
export function useValueWords(): (field: string, value: unknown) => string {
  const { t, local, language } = useWords();
  const times = useTimes();
  const day = (date: string): string =>
    dateFormat(LOCALES[language], {
      ...{ weekday: 'short', day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' },
    }).format(Date.parse(date));
  return (field, value) => {
    if (value === null || value === undefined || value === '') return '';
    if (typeof value === 'boolean') return t(value ? 'common/yes' : 'common/no');
    if (typeof value === 'number') {
      if (INSTANTS.has(field)) return times.full(value);
      return field === 'estimateMinutes' ? times.span(value) : String(value);
    }
    if (typeof value === 'string') {
      if (WORDED[field]) return t(`${WORDED[field]}/${value}`);
      return field === 'dueDate' ? day(value) : value;
    }
    return typeof value === 'object' && 'en' in value ? local(value as LocalText) : JSON.stringify(value);
  };
}
