import type { Entry } from '../../contract/tickets';
import type { LocalText } from '../../core/forms';
import { useWords } from '../messages/useWords';
import { useTimes } from './useTimes';
import { ENTRY_EVENTS_SHOWN } from './entryTypes';

const SHOWN = new Set<string>(ENTRY_EVENTS_SHOWN);

/** Where what happened has more than one wording: the one that fits. */
function sayType(type: string, { reason, personId }: Entry['data']): string {
  if (type === 'asked' && reason === 'fallback') return 'askedFallback';
  if ((type === 'askLeft' || type === 'askPassedUp') && personId === undefined) return `${type}ToOthers`;
  return type;
}

/** The texts of a list; what is no list of texts has none. */
const listOf = (value: unknown): LocalText[] => (Array.isArray(value) ? (value as LocalText[]) : []);

/**
 * An entry of the journal in words, or null for one that is not shown. An entry that cannot be read says so, and
 * the rest of the page stays.
 */
export function useEntryWords(meId: string): (entry: Entry) => string | null {
  const { t } = useWords();
  const wordsOf = useReadableWords(meId);
  return (entry) => {
    try {
      return wordsOf(entry);
    } catch (error) {
      console.warn(`entry ${entry.id} cannot be read`, error);
      return t('entries/unreadable');
    }
  };
}

function useReadableWords(meId: string): (entry: Entry) => string | null {
  const { t, local } = useWords();
  const times = useTimes();
  const full = (at: unknown): string => (typeof at === 'number' ? times.full(at) : '');
  return ({ type, actor, data, changes, from }) => {
    if (!SHOWN.has(type)) return null;
    if (from !== null && type === 'sent') return t('entries/sentFrom', { from });
    const who = actor === null ? t('entries/by') : actor.id === meId ? t('common/you') : actor.name;
    const fields =
      type === 'changed'
        ? Object.keys(changes).map((field) => t(`conflict/fields/${field}`).toLowerCase())
        : [];
    const said = sayType(type, data);
    const heldFor = changes.heldFor?.to;
    return t(`entries/${said}`, {
      who,
      person: data.person,
      former: data.former,
      formerName: data.formerName ? local(data.formerName as LocalText) : '',
      target: data.target,
      percent: data.percent,
      fields: fields.join(', '),
      whom: typeof heldFor === 'string' ? t(`heldFor/${heldFor}`) : '',
      words: typeof data.words === 'object' && data.words ? local(data.words as LocalText) : '',
      promised: full(data.promisedAt),
      forecast: full(data.forecastAt),
      step: data.name ? local(data.name as LocalText) : '',
      // The first of them is the one to look at.
      steps: listOf(data.driving).slice(0, 1).map(local).join(),
      changed: listOf(data.fields).map(local).join(', '),
      reason: data.reason,
      under: data.under,
      below: data.below,
      minutes: data.minutes,
      place: data.place,
      count: data.count,
      why:
        typeof data.way === 'string' ? t(`entries/ways/${data.way}`, { ...data, count: data.couldHave }) : '',
      said: typeof data.words === 'string' ? data.words : (data.said ?? ''),
      decision: data.decision === 'approve' ? t('entries/agree') : t('entries/disagree'),
    });
  };
}

/** When words were said that reached the thread a good while later, or null. */
export function useDelayWords(): (entry: Entry) => string | null {
  const { t } = useWords();
  const times = useTimes();
  return ({ data: { saidAt } }) =>
    typeof saidAt === 'number' ? t('entries/cameLate', { said: times.full(saidAt) }) : null;
}
