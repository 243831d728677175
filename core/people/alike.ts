import { distance } from 'fastest-levenshtein';
import { foldText } from '../text';

const namesOf = (name: string): string[] =>
  foldText(name)
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);

/** A slip of the pen: one letter in a name that is long enough to have another. */
const isSlip = (a: string, b: string): boolean =>
  a === b || (Math.min(a.length, b.length) > 3 && distance(a, b) <= 1);

/**
 * Whether two names may be of one person: the shorter one's names are all in the longer one, in whatever order, with a
 * letter wrong at most in each; a single name says too little.
 * @example areAlike('Lobo, Ana', 'Ana Maria Lobo') // true
 */
export function areAlike(a: string, b: string): boolean {
  const [shorter, longer] = [namesOf(a), namesOf(b)].sort((x, y) => x.length - y.length) as [
    string[],
    string[],
  ];
  if (shorter.length === 0) return false;
  if (shorter.length === 1 && longer.length > 1) return false;
  const left = [...longer];
  return shorter.every((name) => {
    const at = left.findIndex((other) => isSlip(name, other));
    if (at === -1) return false;
    left.splice(at, 1);
    return true;
  });
}
