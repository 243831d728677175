import type { Entry } from '../../contract/tickets';
import type { LocalText } from '../../core/forms';
import { useWords } from '../messages/useWords';
import { ENTRY_EVENTS_SHOWN } from './entryTypes';

const SHOWN = new Set<string>(ENTRY_EVENTS_SHOWN);

/** An entry of the journal in words, or null for one that is not shown. */
export function useEntryWords(meId: string): (entry: Entry) => string | null {
  const { t, local } = useWords();
  return ({ type, actor, data, changes }) => {
    if (!SHOWN.has(type)) return null;
    const who = actor === null ? t('entries/by') : actor.id === meId ? t('common/you') : actor.name;
    const fields = Object.keys(changes).map((field) => t(`conflict/fields/${field}`).toLowerCase());
    const heldFor = changes.heldFor?.to;
    return t(`entries/${type}`, {
      who,
      person: data.person,
      target: data.target,
      percent: data.percent,
      fields: fields.join(', '),
      whom: typeof heldFor === 'string' ? t(`heldFor/${heldFor}`) : '',
      words: data.words ? local(data.words as LocalText) : '',
      decision: data.decision === 'approve' ? t('entries/agree') : t('entries/disagree'),
    });
  };
}
