import { foldText } from '../text';

/** Where each field comes from: a column by its place, or the same words for every row. */
export type MappingOf<Field extends string> = Partial<Record<Field, { column: number } | { always: string }>>;

/** A first guess of what the columns are, by their headings as they are often called; each column is used once. */
export function guessByNames<Field extends string>(
  often: Record<Field, readonly string[]>,
  headings: readonly string[],
): MappingOf<Field> {
  const mapping: MappingOf<Field> = {};
  const used = new Set<number>();
  const folded = headings.map((heading) => foldText(heading).trim());
  for (const field of Object.keys(often) as Field[]) {
    const place = often[field]
      .map((name) => folded.findIndex((heading, i) => heading === name && !used.has(i)))
      .find((i) => i !== -1);
    if (place === undefined) continue;
    used.add(place);
    mapping[field] = { column: place };
  }
  return mapping;
}

/** What a row says of a field; blank: nothing. */
export function cellOf<Field extends string>(
  cells: readonly string[],
  mapping: MappingOf<Field>,
  field: Field,
): string {
  const from = mapping[field];
  return (from === undefined ? '' : 'always' in from ? from.always : (cells[from.column] ?? '')).trim();
}
