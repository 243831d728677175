/** Text with what is chosen in it. */
export type Chosen = { text: string; start: number; end: number };

/**
 * The whole lines that a choice touches, each beginning with a mark; taken away again where all of them have it.
 * @returns the stretch to replace and what with
 */
export function prefixLines(
  { text, start, end }: Chosen,
  mark: string,
): { start: number; end: number; with: string } {
  const from = text.lastIndexOf('\n', start - 1) + 1;
  const next = text.indexOf('\n', end);
  const to = next === -1 ? text.length : next;
  const lines = text.slice(from, to).split('\n');
  const hasAll = lines.every((line) => line.startsWith(mark));
  const changed = lines.map((line) => (hasAll ? line.slice(mark.length) : `${mark}${line}`));
  return { start: from, end: to, with: changed.join('\n') };
}
