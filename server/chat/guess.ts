import { understand } from '../../core/assistant';
import { hearersOf } from '../assistant/talks';
import { readLearned } from '../assistant/learned';
import { findLastResort } from '../catalogue/lastResort';
import { searchServices } from '../catalogue/services';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';

/** Below this a guess is worth less than what the words find in the catalogue. */
const LEAST = 0.25;
/** `isFound`: by the words; else it is the service for what fits no other. */
export type Guess = { serviceId: string; sureness: number | null; isFound: boolean };

/** What some words probably ask for, and how sure that is; null: found by its words, without a measure. */
export async function guessService(listo: Listo, viewer: SignedIn, words: string): Promise<Guess> {
  const learned = await readLearned(listo, hearersOf(viewer));
  if (learned.matters.length > 0) {
    const [first] = understand(learned.understanding, words, viewer.language);
    const matter = learned.matters.find(({ id }) => id === first?.id);
    if (matter?.serviceId && first && first.sureness >= LEAST)
      return { serviceId: matter.serviceId, sureness: first.sureness, isFound: true };
  }
  const [found] = await searchServices(listo, viewer, words.slice(0, 200));
  return {
    serviceId: found?.id ?? (await findLastResort(listo)),
    ...{ sureness: null, isFound: found !== undefined },
  };
}
