const read = new Map<string, RegExp | null>();
const LONGEST = 200;
/** A repetition of what repeats already can take for ever to say no. */
const NESTED = /[+*}]\)[+*{]|\(\?<?[=!]|\\[1-9]/;

/**
 * A regular expression that the whole text has to match, as JSON Schema's `pattern` with both ends tied; null where
 * it cannot be read, or could take too long on a text made for that.
 * @example readPattern('[A-Z]{2}-\\d+')!.test('PA-12') // true
 */
export function readPattern(pattern: string): RegExp | null {
  const known = read.get(pattern);
  if (known !== undefined) return known;
  let expression: RegExp | null = null;
  try {
    if (pattern.length <= LONGEST && !NESTED.test(pattern)) expression = new RegExp(`^(?:${pattern})$`, 'u');
  } catch {
    expression = null;
  }
  if (read.size > 500) read.clear();
  read.set(pattern, expression);
  return expression;
}
