import type { LocalText } from '../forms';
import { courtesyOf } from '../text';
import { choiceOf, layOut, type MatterStep } from './flow';
import type { Offer } from './offer';

/** Something the assistant can deal with: its service, and the steps that are walked. */
export type Matter = { id: string; serviceId: string; steps: MatterStep[] };

/** What the assistant waits for now. */
export type TalkPhase = 'listen' | 'confirm' | 'choose' | 'step' | 'passages' | 'teams' | 'waiting' | 'ended';
/** How conversations end without a person: what was shown solved it, or said all that there was to say. */
export const FINISHED_ALONE = ['solved', 'told'] as const;
/** How they end where a person has to do something: handed over, a ticket, or a form that becomes one. */
export const NEEDED_A_PERSON = ['handedOver', 'ticket', 'form'] as const;
/** How a conversation ended; `left`: the person went without a word. */
export type TalkOutcome = (typeof FINISHED_ALONE)[number] | (typeof NEEDED_A_PERSON)[number] | 'left';

/** Where a conversation stands. */
export type Talk = {
  phase: TalkPhase;
  /** The person's own words on the matter, which go along if a person takes over. */
  said: string[];
  offered: string[];
  /** What the person said it is not: never offered again. */
  refused: string[];
  hasReworded: boolean;
  matterId: string | null;
  step: number;
  fields: Record<string, string>;
  outcome: TalkOutcome | null;
  /** The other matter of a message that named two; it is come back to when this one has ended. */
  later?: string[];
  /** Whether its ticket is written: there is one alone. */
  hasTicket?: true;
};

/** A conversation in which nothing has been said yet. */
export const NEW_TALK: Talk = {
  ...{ phase: 'listen', said: [], offered: [], refused: [], hasReworded: false },
  ...{ matterId: null, step: 0, fields: {}, outcome: null },
};

/**
 * What a ticket of it is called: what a matter was understood by, which was said last; else what was said first.
 */
export const titleOf = ({ said, matterId }: Talk): string | undefined =>
  matterId === null ? said[0] : said.at(-1);

/** What the assistant says or does next; the words for it are found where they are shown. */
export type Turn =
  | { say: 'confirm' | 'choose' | 'both' | 'other'; matterIds: string[] }
  | {
      say:
        | 'reword'
        | 'passages'
        | 'teams'
        | 'again'
        | 'glad'
        | 'hello'
        | 'welcome'
        | 'toldMasked'
        | 'allSaid'
        | 'waiting'
        | 'agreed'
        | 'notAgreed';
    }
  | { say: 'text'; text: LocalText }
  | { say: 'question'; text: LocalText; choices: LocalText[] }
  | { say: 'article'; articleId: string }
  | { say: 'form'; serviceId: string }
  | { say: 'state'; serviceId: string }
  | { do: 'ticket'; serviceId: string | null; teamId: string | null; isHandOver: boolean };

/** What the person does. */
export type Input =
  | { kind: 'words'; text: string; offer: Offer }
  | { kind: 'pick'; id: string }
  | { kind: 'none' }
  | { kind: 'helped'; helped: boolean }
  | { kind: 'team'; id: string }
  | { kind: 'person' }
  /** What it waited for was decided. */
  | { kind: 'decided'; isAgreed: boolean };

/** Where a conversation stands after an input, and what is said. */
export type Next = { talk: Talk; turns: Turn[] };

const ended = (talk: Talk, outcome: TalkOutcome): Talk => ({ ...talk, phase: 'ended', outcome });

/** Walks the steps of a matter up to one that waits for the person. */
function walk(talk: Talk, matter: Matter): Next {
  const turns: Turn[] = [];
  const placed = layOut(matter.steps);
  for (let { step } = talk; ; step = placed[step]!.next) {
    const at = { ...talk, phase: 'step' as const, matterId: matter.id, step };
    const next = placed[step]?.step ?? { kind: 'ticket' as const };
    // What comes after its ticket writes no other.
    const writes = next.kind === 'ticket' || next.kind === 'person' || next.kind === 'approval';
    if (at.hasTicket && writes) return { talk: ended(at, 'ticket'), turns };
    switch (next.kind) {
      case 'approval':
        turns.push(
          { do: 'ticket', serviceId: matter.serviceId, teamId: null, isHandOver: false },
          { say: 'waiting' },
        );
        return { talk: { ...at, phase: 'waiting', hasTicket: true }, turns };
      case 'say':
        turns.push({ say: 'text', text: next.text });
        if (placed[step]!.next === placed.length) return { talk: ended(at, 'told'), turns };
        break;
      case 'end':
        turns.push({ say: 'allSaid' });
        return { talk: ended(at, at.hasTicket ? 'ticket' : 'told'), turns };
      case 'ask':
        turns.push({ say: 'question', text: next.text, choices: next.choices });
        return { talk: at, turns };
      case 'article':
        turns.push({ say: 'article', articleId: next.articleId });
        return { talk: at, turns };
      case 'state':
        turns.push({ say: 'state', serviceId: matter.serviceId });
        return { talk: ended(at, 'told'), turns };
      case 'form':
        turns.push({ say: 'form', serviceId: matter.serviceId });
        return { talk: ended(at, 'form'), turns };
      case 'ticket':
      case 'person': {
        const isHandOver = next.kind === 'person';
        turns.push({ do: 'ticket', serviceId: matter.serviceId, teamId: null, isHandOver });
        return { talk: ended(at, isHandOver ? 'handedOver' : 'ticket'), turns };
      }
    }
  }
}

/** After what was said did not lead anywhere: other words once, then passages, then who should have it. */
function goOn(talk: Talk): Next {
  if (!talk.hasReworded)
    return { talk: { ...talk, phase: 'listen', hasReworded: true, offered: [] }, turns: [{ say: 'reword' }] };
  if (talk.phase !== 'passages')
    return { talk: { ...talk, phase: 'passages', offered: [] }, turns: [{ say: 'passages' }] };
  return { talk: { ...talk, phase: 'teams' }, turns: [{ say: 'teams' }] };
}

function takeWords(talk: Talk, text: string, offer: Offer): Next {
  const courtesy = courtesyOf(text);
  if (courtesy) return { talk, turns: [{ say: courtesy === 'greeting' ? 'hello' : 'welcome' }] };
  const said = { ...talk, said: [...talk.said, text] };
  const ids = offer.ids.filter((id) => !talk.refused.includes(id));
  if (offer.kind === 'reword' || ids.length === 0) return goOn(said);
  const phase = ids.length === 1 && offer.kind !== 'unclear' ? 'confirm' : 'choose';
  const isBoth = offer.kind === 'both' && ids.length === 2;
  return {
    talk: { ...said, phase, offered: ids, later: isBoth ? ids : [] },
    turns: [{ say: isBoth ? 'both' : phase, matterIds: ids }],
  };
}

/** On with what comes after the step that was waited at. */
const goPast = (talk: Talk, matter: Matter): Next =>
  walk({ ...talk, step: layOut(matter.steps)[talk.step]?.next ?? talk.step + 1 }, matter);

/** An answer to a question of the matter: kept in its field, then on where it leads. */
function takeAnswer(talk: Talk, text: string, matter: Matter): Next {
  const here = layOut(matter.steps)[talk.step];
  if (here?.step.kind !== 'ask') return goPast(talk, matter);
  const { field, choices } = here.step;
  const step = here.byChoice[choiceOf(choices, text)] ?? here.next;
  return walk({ ...talk, fields: { ...talk.fields, [field]: text }, step }, matter);
}

/** While others decide there is nothing to do but wait; then the steps go on, or it ends here. */
function afterWaiting(talk: Talk, input: Input, matter: Matter | undefined): Next {
  // Its ticket is with people already.
  if (input.kind === 'person') return { talk: ended(talk, 'handedOver'), turns: [{ say: 'waiting' }] };
  if (input.kind !== 'decided') return { talk, turns: [{ say: 'waiting' }] };
  if (!input.isAgreed || !matter)
    return { talk: ended(talk, 'ticket'), turns: [{ say: input.isAgreed ? 'agreed' : 'notAgreed' }] };
  const { talk: next, turns } = goPast(talk, matter);
  return { talk: next, turns: [{ say: 'agreed' }, ...turns] };
}

/** Once a matter of a message that named two has ended, the other one is named. */
function nameOther({ talk, turns }: Next): Next {
  const later = (talk.later ?? []).filter((id) => id !== talk.matterId);
  const isDone = talk.phase === 'ended' && talk.matterId !== null && talk.outcome !== 'handedOver';
  if (!isDone || later.length === 0) return { talk, turns };
  return { talk: { ...talk, later: [] }, turns: [...turns, { say: 'other', matterIds: later }] };
}

/**
 * What a conversation comes to by what the person does. It never loops: a matter that was refused is not offered
 * again, other words are asked for once, and at any moment a person can be asked for.
 */
export function proceed(talk: Talk, input: Input, matterOf: (id: string) => Matter | undefined): Next {
  return nameOther(goThrough(talk, input, matterOf));
}

function goThrough(talk: Talk, input: Input, matterOf: (id: string) => Matter | undefined): Next {
  const matter = talk.matterId === null ? undefined : matterOf(talk.matterId);
  if (talk.phase === 'ended') return { talk, turns: [] };
  if (talk.phase === 'waiting') return afterWaiting(talk, input, matter);
  if (input.kind === 'person')
    return {
      talk: ended(talk, 'handedOver'),
      turns: [{ do: 'ticket', serviceId: matter?.serviceId ?? null, teamId: null, isHandOver: true }],
    };
  if (input.kind === 'team' && talk.phase === 'teams')
    return {
      talk: ended(talk, 'handedOver'),
      turns: [{ do: 'ticket', serviceId: null, teamId: input.id, isHandOver: true }],
    };
  if (talk.phase === 'step' && matter) {
    if (input.kind === 'words') return takeAnswer(talk, input.text, matter);
    if (input.kind === 'helped' && input.helped)
      return { talk: ended(talk, 'solved'), turns: [{ say: 'glad' }] };
    if (input.kind === 'helped') return goPast(talk, matter);
    if (input.kind === 'none')
      return goOn({
        ...talk,
        phase: 'listen',
        matterId: null,
        step: 0,
        refused: [...talk.refused, matter.id],
      });
  }
  if (input.kind === 'words') return takeWords(talk, input.text, input.offer);
  if (input.kind === 'helped')
    return input.helped ? { talk: ended(talk, 'solved'), turns: [{ say: 'glad' }] } : goOn(talk);
  if (input.kind === 'pick' && talk.offered.includes(input.id)) {
    const picked = matterOf(input.id);
    return picked ? walk({ ...talk, step: 0, offered: [] }, picked) : goOn(talk);
  }
  if (input.kind === 'none') return goOn({ ...talk, refused: [...talk.refused, ...talk.offered] });
  return { talk, turns: [{ say: 'again' }] };
}
