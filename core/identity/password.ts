/** Letters that a password has at least. */
export const SHORTEST_PASSWORD = 12;
const LEAST_DIFFERENT = 6;
/** Rows of keys and of letters: what runs along them is tried first. */
const ROWS = ['abcdefghijklmnopqrstuvwxyz', '01234567890', 'qwertyuiop', 'asdfghjkl', 'zxcvbnm'];
const LONGEST_RUN = 5;

/** Why a password is refused. */
export type PasswordProblem = 'tooShort' | 'tooSimple';

/** Whether most of a text runs along a row of letters or keys. */
function runsAlong(text: string): boolean {
  let covered = 0;
  for (let at = 0; at + LONGEST_RUN <= text.length; at++) {
    const run = text.slice(at, at + LONGEST_RUN);
    const back = Array.from(run).reverse().join('');
    if (ROWS.some((row) => row.includes(run) || row.includes(back))) covered++;
  }
  return covered > (text.length - LONGEST_RUN) / 2;
}

/**
 * What is wrong with a password that someone chooses: too few letters, few that differ, the same over again, along the
 * keys, or made of what is known of them. (Length first, as NIST SP 800-63B, 5.1.1.2 has it.)
 * @example checkPassword('aaaaaaaaaaaa', []) // 'tooSimple'
 */
export function checkPassword(password: string, known: string[]): PasswordProblem | null {
  const letters = Array.from(password.normalize('NFKC').toLowerCase());
  if (letters.length < SHORTEST_PASSWORD) return 'tooShort';
  const text = letters.join('');
  if (new Set(letters).size < LEAST_DIFFERENT || runsAlong(text)) return 'tooSimple';
  if (/^(.{1,8})\1+.{0,7}$/su.test(text)) return 'tooSimple';
  const rest = known
    .flatMap((words) => words.toLowerCase().split(/[^\p{L}\p{N}]+/u))
    .filter((word) => word.length > 2)
    .reduce((left, word) => left.replaceAll(word, ''), text);
  return rest.replace(/[^\p{L}\p{N}]/gu, '').length < LEAST_DIFFERENT ? 'tooSimple' : null;
}
