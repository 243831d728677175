/** One line of a checklist within words. */
export type Check = { text: string; isDone: boolean };

/** A list item that begins with a box, as in GitHub Flavored Markdown 0.29, section 5.3 (task list items). */
const ITEM = /^(\s*(?:[-+*]|\d{1,9}[.)])\s+\[)([ xX])(\]\s+)(\S.*)$/;
const FENCE = /^\s*(```|~~~)/;

function mapItems(text: string, change: (index: number, item: RegExpExecArray) => string): string {
  let index = 0;
  let isCode = false;
  const lines = text.split('\n').map((line) => {
    if (FENCE.test(line)) isCode = !isCode;
    const item = isCode ? null : ITEM.exec(line);
    return item ? change(index++, item) : line;
  });
  return lines.join('\n');
}

/** The lines of the checklists in some words, in their order. */
export function findChecks(text: string): Check[] {
  const checks: Check[] = [];
  mapItems(text, (_, [line, , mark, , words]) => {
    checks.push({ text: words!.trim(), isDone: mark !== ' ' });
    return line;
  });
  return checks;
}

/**
 * The words with one line of their checklists ticked off or not.
 * @example setCheck('- [ ] order\n- [ ] fit', 1, true) // '- [ ] order\n- [x] fit'
 */
export function setCheck(text: string, index: number, isDone: boolean): string {
  return mapItems(text, (at, [line, before, , after, words]) =>
    at === index ? `${before}${isDone ? 'x' : ' '}${after}${words}` : line,
  );
}
