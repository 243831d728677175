import { findAndReplace } from 'mdast-util-find-and-replace';
import { TICKET_NUMBER } from '../../core/words';

/** What this looks at of Markdown's tree. */
type Node = { type: string; url?: string; value?: string; children?: Node[] };

/** Mentions carry their @ within; numbers of tickets become links. */
export function remarkCalls() {
  return (tree: unknown): void => {
    takeSigns(tree as Node);
    findAndReplace(
      tree as Parameters<typeof findAndReplace>[0],
      [
        [
          new RegExp(TICKET_NUMBER),
          (sign: string, digits: string) => ({
            type: 'link',
            url: `ticket:${digits}`,
            children: [{ type: 'text', value: sign }],
          }),
        ],
      ],
      { ignore: ['link'] },
    );
  };
}

/** Whether an address calls someone, as core/words writes it. */
export const isCall = (address: string): boolean => /^(person:|team:|everyone$)/.test(address);

function takeSigns({ children = [] }: Node): void {
  children.forEach((child, i) => {
    const before = children[i - 1];
    if (child.type === 'link' && isCall(child.url ?? '') && before?.value?.endsWith('@')) {
      before.value = before.value.slice(0, -1);
      child.children = [{ type: 'text', value: '@' }, ...(child.children ?? [])];
    }
    takeSigns(child);
  });
}
