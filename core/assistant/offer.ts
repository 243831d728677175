import type { JudgedPhrasing, Likely } from './understand';

/**
 * What is said to what was understood: one matter is confirmed, two to four are offered; two that are named in one message
 * are both asked about. Where more could be meant, or something else is among the first, the three likeliest are offered, as
 * long as it is not rather something else that is meant; then other words are asked for.
 */
export type Offer = { kind: 'confirm' | 'choose' | 'both' | 'unclear' | 'reword'; ids: string[] };

const MOST_OFFERED = 4;
/** So many are offered where it is unclear what is meant. */
const UNCLEAR_OFFERED = 3;
/** Where something else is likelier than this, no matter is named. */
const MOST_ELSE = 0.5;
/** Below it, the most likely would be named whatever else is likely. */
const LEAST_SUM = 0.35;
const STEP = 0.01;

/** The matters that together reach a sum; null: they are too many, or something else is among them. */
function gather(likely: Likely[], sum: number): string[] | null {
  const gathered: Likely[] = [];
  let reached = 0;
  for (const each of likely) {
    gathered.push(each);
    reached += each.sureness;
    if (reached >= sum) break;
  }
  const ids = gathered.flatMap(({ id }) => id ?? []);
  return ids.length === gathered.length && ids.length <= MOST_OFFERED ? ids : null;
}

/**
 * Gathers matters from the most likely down until they together reach a sum of surenesses.
 * @param sum between 0 and 1; see `sumFor`
 * @example chooseOffer([{ id: 'kiosk', sureness: 0.93 }, …], 0.9) // { kind: 'confirm', ids: ['kiosk'] }
 */
export function chooseOffer(likely: Likely[], sum: number): Offer {
  const ids = gather(likely, sum);
  if (ids) return { kind: ids.length === 1 ? 'confirm' : 'choose', ids };
  const first = likely.flatMap(({ id }) => id ?? []).slice(0, UNCLEAR_OFFERED);
  const elsewhere = likely.find(({ id }) => id === null)?.sureness ?? 0;
  return { kind: elsewhere > MOST_ELSE || first.length < 2 ? 'reword' : 'unclear', ids: first };
}

/** How offers at a sum would have gone: how often something was offered, held what was meant, and how much it was. */
export type OfferRecord = { offered: number; held: number; size: number; single: number };

/**
 * How offers up to a sum of sureness would have done on phrasings whose matter is known, each as a share of 1;
 * `size`: matters offered on average.
 */
export function tryOffers(judged: JudgedPhrasing[], sum: number): OfferRecord {
  const offers = judged.map(({ id, likely }) => ({ id, offer: chooseOffer(likely, sum) }));
  const made = offers.filter(({ offer }) => offer.kind !== 'reword');
  const held = made.filter(({ id, offer }) => offer.ids.includes(id)).length;
  const size = made.reduce((total, { offer }) => total + offer.ids.length, 0);
  return {
    offered: made.length / Math.max(1, judged.length),
    held: held / Math.max(1, made.length),
    size: size / Math.max(1, made.length),
    single: offers.filter(({ offer }) => offer.kind === 'confirm').length / Math.max(1, judged.length),
  };
}

/** From so many on, conversations tell more than what authors write. */
export const LEAST_PAST = 100;

/**
 * What a sum is found by. Authors write phrasings that differ from each other, so each one left out is harder than what
 * people say: by them alone, offers hold more than is wanted, and other words are asked for more often than needed.
 * @param past conversations by their first words, judged by what was learned without them
 */
export const evidenceOf = (judged: JudgedPhrasing[], past: JudgedPhrasing[]): JudgedPhrasing[] =>
  past.length < LEAST_PAST ? judged : past;

/**
 * The sum that must be reached for offers to hold what was meant as often as is wanted: the least at which those over
 * words that were not learned did, with one more that did not (a conformal set: Angelopoulos and Bates, A gentle
 * introduction to conformal prediction, 2021). Sets gathered to the wanted sureness itself hold more than they claim,
 * since the last one gathered goes beyond it, and would ask where there is no need. What is offered because it is unclear
 * claims no sureness and does not count.
 */
export function sumFor(judged: JudgedPhrasing[], wanted: number): number {
  for (let sum = LEAST_SUM; sum < wanted; sum += STEP) {
    const gathered = judged.map(({ id, likely }) => gather(likely, sum)?.includes(id) ?? null);
    const made = gathered.filter((isHeld) => isHeld !== null).length;
    const held = gathered.filter(Boolean).length;
    if (held >= wanted * (made + 1)) return sum;
  }
  return wanted;
}
