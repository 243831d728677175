import { RE2JS } from 're2js';

/** A pattern that is ready to judge texts. */
export type Pattern = { test(text: string): boolean };

const read = new Map<string, Pattern | null>();
const LONGEST = 200;
/** Code points as JavaScript writes them; the engine writes them its own way. */
const CODE_POINT = /\\u(?:\{([0-9a-fA-F]{1,6})\}|([0-9a-fA-F]{4}))/g;

/**
 * A regular expression that the whole text has to match, as JSON Schema's `pattern` with both ends tied; null where it
 * cannot be read. It is worked by an automaton, so that time goes by the length of the text, whoever wrote the pattern;
 * what only going back could do (looking ahead, naming what was found before) is not read.
 * @example readPattern('[A-Z]{2}-\\d+')!.test('PA-12') // true
 */
export function readPattern(pattern: string): Pattern | null {
  const known = read.get(pattern);
  if (known !== undefined) return known;
  let expression: Pattern | null = null;
  try {
    if (pattern.length <= LONGEST) {
      const compiled = RE2JS.compile(
        pattern.replace(CODE_POINT, (_, braced?: string, four?: string) => `\\x{${braced ?? four ?? ''}}`),
      );
      expression = { test: (text) => compiled.matches(text) };
    }
  } catch {
    expression = null;
  }
  if (read.size > 500) read.clear();
  read.set(pattern, expression);
  return expression;
}
