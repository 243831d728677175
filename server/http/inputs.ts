import { findBadText } from '../../core/text';

/** Deeper than anything that the contracts know: what is nested further was made to keep its reader busy. */
const DEEPEST = 48;
/** Values in one body: a list of 5,000 tickets with their fields has fewer. */
const MOST_VALUES = 200_000;

export type BadInput = { field: string; code: 'badCharacter' | 'tooDeep' | 'tooManyParts' };

/**
 * What is wrong with an input whatever its contract: text that cannot be stored exactly, or more nesting or parts than
 * anyone sends. Work: each value is looked at once, without recursion.
 */
export function findBadInput(input: unknown): BadInput | null {
  const waiting: { value: unknown; path: string; depth: number }[] = [{ value: input, path: '', depth: 0 }];
  let seen = 0;
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { value, path, depth } = next;
    if (++seen > MOST_VALUES) return { field: path, code: 'tooManyParts' };
    if (typeof value === 'string') {
      if (findBadText(value)) return { field: path, code: 'badCharacter' };
    } else if (typeof value === 'object' && value !== null) {
      if (depth >= DEEPEST) return { field: path.slice(0, 200), code: 'tooDeep' };
      for (const [name, part] of Object.entries(value)) {
        if (findBadText(name)) return { field: path, code: 'badCharacter' };
        waiting.push({
          value: part,
          path: path === '' ? name : `${path}.${name}`.slice(0, 300),
          depth: depth + 1,
        });
      }
    }
  }
  return null;
}

type Plain = Record<string, unknown>;
const isPlain = (value: unknown): value is Plain =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Fields that were sent and that the contract knows nothing of, by their path. */
export function findUnknown(sent: unknown, known: unknown, path = ''): string[] {
  if (Array.isArray(sent) && Array.isArray(known) && sent.length === known.length)
    return sent.flatMap((each, i) => findUnknown(each, known[i], `${path}${i}.`));
  if (!isPlain(sent) || !isPlain(known)) return [];
  return Object.keys(sent).flatMap((name) =>
    Object.hasOwn(known, name) ? findUnknown(sent[name], known[name], `${path}${name}.`) : [`${path}${name}`],
  );
}
