import { fromMarkdown } from 'mdast-util-from-markdown';

/** Quotes and lists that one line may begin within each other. */
const MOST_NESTED = 12;
/** As many in a whole text beyond the first of each line. */
const MOST_MARKS = 2_000;
/** Signs of emphasis, and of links, in one paragraph: reading them takes time by their square. */
const MOST_SIGNS = 500;
/** Marks with which a line begins a quote or a list, one after the other. */
const MARK = /[ \t]*(?:>|[-+*](?=[ \t])|\d{1,9}[.)](?=[ \t]))/y;
const EMPHASIS = /[*_~]/g;
const BRACKET = /[[\]]/g;

function marksOf(line: string): number {
  let marks = 0;
  MARK.lastIndex = 0;
  while (MARK.test(line)) marks++;
  return marks;
}

/**
 * Whether reading a text as Markdown takes time in no proportion to its length: quotes and lists deep within each
 * other, or a paragraph of very many signs of emphasis or links. Nobody writes so by hand. Work: one pass over the text.
 */
export function isTooNested(markdown: string): boolean {
  let beyond = 0;
  for (const line of markdown.split('\n')) {
    const marks = marksOf(line);
    beyond += Math.max(0, marks - 1);
    if (marks > MOST_NESTED || beyond > MOST_MARKS) return true;
  }
  return markdown
    .split(/\n[ \t]*\n/)
    .some(
      (paragraph) =>
        (paragraph.match(EMPHASIS)?.length ?? 0) > MOST_SIGNS ||
        (paragraph.match(BRACKET)?.length ?? 0) > MOST_SIGNS,
    );
}

/** The tree of a text; one that is too nested to be read is one paragraph as it was written. */
export function parseMarkdown(markdown: string): ReturnType<typeof fromMarkdown> {
  if (!isTooNested(markdown)) return fromMarkdown(markdown);
  return { type: 'root', children: [{ type: 'paragraph', children: [{ type: 'text', value: markdown }] }] };
}
