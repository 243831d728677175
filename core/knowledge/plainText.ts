import { toString } from 'mdast-util-to-string';
import { parseMarkdown } from '../words';

/**
 * Markdown as it reads without its signs, a line for each paragraph, item and heading.
 * @example toPlainText('1. Hold **both** buttons') // 'Hold both buttons'
 */
export function toPlainText(markdown: string): string {
  const lines: string[] = [];
  type Node = { type: string; children?: Node[] };
  const read = (node: Node): void => {
    if (['paragraph', 'heading', 'code'].includes(node.type)) lines.push(toString(node));
    else node.children?.forEach(read);
  };
  read(parseMarkdown(markdown));
  return lines.join('\n');
}
