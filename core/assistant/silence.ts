/** What the assistant says when nothing is said to it, in this order. */
export const SILENT_WORDS = ['stillThere', 'followUp', 'closed'] as const;
/** What is said into a silence. */
export type SilentWord = (typeof SILENT_WORDS)[number];

const MINUTE_MS = 60_000;
/** After so long without a word of the person: in ms. */
const AFTER: Record<SilentWord, number> = {
  stillThere: 5 * MINUTE_MS,
  followUp: 60 * MINUTE_MS,
  closed: 120 * MINUTE_MS,
};

/**
 * What comes next of silence, and when, after what was said of itself since the person's last word; null: it is over.
 * @param lastSaidAt the person's last word, in epoch ms
 * @example afterSilence(0, []) // { word: 'stillThere', at: 300_000 }
 */
export function afterSilence(
  lastSaidAt: number,
  said: SilentWord[],
): { word: SilentWord; at: number } | null {
  const word = SILENT_WORDS.find((each) => !said.includes(each));
  return word === undefined || said.includes('closed') ? null : { word, at: lastSaidAt + AFTER[word] };
}
