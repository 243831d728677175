import type { Entry } from '../../contract/tickets';
import type { LocalText } from '../../core/forms';
import { isShown, type ShownKind } from '../../core/journal';
import type { WorkOutcome } from '../../core/works';
import type { EntryWording } from '../messages/entries.en';
import { useWords } from '../messages/useWords';
import { useChangeWords } from './useChangeWords';
import { useTimes } from './useTimes';

type EntryName = string | LocalText;

/** Where what happened has more than one wording: the one that fits. */
function wordingOf(kind: ShownKind, { data, from }: Entry): EntryWording {
  if (kind === 'sent' && from !== null) return 'sentFrom';
  if (kind === 'ruleSaid' && data.rule === undefined) return 'ruleSaidToYou';
  if (kind === 'asked' && data.reason === 'fallback') return 'askedFallback';
  if ((kind === 'askLeft' || kind === 'askPassedUp') && data.personId === undefined) return `${kind}ToOthers`;
  return kind;
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
  const changesOf = useChangeWords();
  const full = (at: unknown): string => (typeof at === 'number' ? times.full(at) : '');
  return (entry) => {
    const { type, data, changes, from } = entry;
    if (!isShown(type)) return null;
    const heldFor = changes.heldFor?.to;
    const whoOf = ({ actor, rule }: Entry): string => {
      if (rule) return rule.name ? t('entries/rule', { rule: local(rule.name) }) : t('entries/ruleGone');
      return actor === null ? t('entries/by') : actor.id === meId ? t('common/you') : actor.name;
    };
    const nameOf = (name: EntryName | undefined): string =>
      typeof name === 'object' ? local(name) : (name ?? '');
    return t(`entries/${wordingOf(type, entry)}`, {
      who: whoOf(entry),
      rule: nameOf(data.rule),
      what: data.effect === undefined ? '' : t(`entries/ruleDoes/${data.effect}`),
      problem: data.code === undefined ? '' : t(`problems/${data.code}`),
      person: data.person,
      former: data.former,
      formerName: nameOf(data.formerName),
      target: data.target,
      percent: data.percent,
      changes: type === 'changed' || type === 'undone' ? changesOf(changes) : '',
      whom: typeof heldFor === 'string' ? t(`heldFor/${heldFor}`) : '',
      words: typeof data.words === 'object' && data.words ? local(data.words) : '',
      promised: full(data.promisedAt),
      forecast: full(data.forecastAt),
      step: nameOf(data.name),
      thing: nameOf(data.name),
      // The first of them is the one to look at.
      steps: listOf(data.driving).slice(0, 1).map(local).join(),
      changed: listOf(data.fields).map(local).join(', '),
      reason: data.reason,
      title: nameOf(data.title),
      // A decision has an outcome too, of other words.
      outcome: type === 'workEnded' ? t(`ofWork/outcomes/${data.outcome as WorkOutcome}`) : '',
      stage: data.stage === undefined ? '' : t(`ofProblem/stages/${data.stage}`),
      tie: data.tie === undefined ? '' : t(`ofProblem/ties/${data.tie}`),
      other: data.other,
      under: data.under,
      from,
      below: data.below,
      minutes: data.minutes,
      place: data.place,
      count: data.count,
      why: data.way === undefined ? '' : t(`entries/ways/${data.way}`, { ...data, count: data.couldHave }),
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
    saidAt === undefined ? null : t('entries/cameLate', { said: times.full(saidAt) });
}
