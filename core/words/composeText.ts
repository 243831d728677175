import { parseMarkdown } from './markdown';

type Node = {
  type: string;
  value?: string | undefined;
  url?: string | undefined;
  alt?: string | null | undefined;
  ordered?: boolean | null | undefined;
  start?: number | null | undefined;
  children?: Node[] | undefined;
};

/** Addresses of Listo's own that texts use beside those of the web, and where they lead. */
const OWN: [RegExp, string][] = [
  [/^ask:([\w-]+)$/, '/ask/services/$1'],
  [/^ticket:(\d+)$/, '/ask/tickets/$1'],
  [/^article:([\w-]+)$/, '/ask/articles/$1'],
];

/** The whole address that a link leads to; null: it leads nowhere outside. */
function wholeAddress(url: string, address: string): string | null {
  if (/^(?:https?|mailto):/i.test(url)) return url;
  if (/^\/(?!\/)/.test(url)) return `${address}${url}`;
  const own = OWN.find(([pattern]) => pattern.test(url));
  return own ? `${address}${url.replace(...own)}` : null;
}

/** What stands in a line: names of links with their addresses behind them. */
function lineOf(node: Node, address: string): string {
  switch (node.type) {
    case 'text':
    case 'inlineCode':
    case 'html':
      return node.value ?? '';
    case 'break':
      return '\n';
    case 'image':
      return `[${node.alt ?? ''}]`;
    case 'link': {
      const name = (node.children ?? []).map((child) => lineOf(child, address)).join('');
      const whole = wholeAddress(node.url ?? '', address);
      return whole === null || whole === name ? name : `${name} (${whole})`;
    }
    default:
      return (node.children ?? []).map((child) => lineOf(child, address)).join('');
  }
}

function itemsOf(list: Node, address: string): string {
  const first = list.start ?? 1;
  return (list.children ?? [])
    .map((item, i) => {
      const sign = list.ordered ? `${first + i}. ` : '- ';
      const indent = ' '.repeat(sign.length);
      return `${sign}${blocksOf(item, address, '\n').replace(/\n/g, `\n${indent}`)}`;
    })
    .join('\n');
}

function blockOf(node: Node, address: string): string {
  switch (node.type) {
    case 'list':
      return itemsOf(node, address);
    case 'code':
    case 'html':
      return node.value ?? '';
    case 'blockquote':
      return blocksOf(node, address, '\n')
        .split('\n')
        .map((line) => `> ${line}`)
        .join('\n');
    case 'thematicBreak':
    case 'definition':
      return '';
    default:
      return lineOf(node, address);
  }
}

const blocksOf = (node: Node, address: string, between: string): string =>
  (node.children ?? [])
    .map((child) => blockOf(child, address))
    .filter((text) => text !== '')
    .join(between);

/**
 * Markdown as text for doors that show none: mail and chat. Steps keep their numbers, and links are whole.
 * @param address where Listo is reached, without a slash at its end
 * @example composeText('1. See [the pass](/ask/articles/a1)', 'https://listo.example')
 *   // '1. See the pass (https://listo.example/ask/articles/a1)'
 */
export function composeText(markdown: string, address: string): string {
  return blocksOf(parseMarkdown(markdown), address, '\n\n');
}
