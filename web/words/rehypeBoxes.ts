/** What this looks at of HTML's tree. */
type Node = { tagName?: string; properties?: Record<string, unknown>; children?: Node[] };

export const BOX_INDEX = 'data-index';

/** Numbers the boxes of checklists in their order, as core/words counts their lines. */
export function rehypeBoxes() {
  return (tree: Node): void => {
    let index = 0;
    const visit = ({ tagName, properties, children = [] }: Node): void => {
      if (tagName === 'input' && properties) properties[BOX_INDEX] = index++;
      children.forEach(visit);
    };
    visit(tree);
  };
}
