/**
 * Skills with their levels, as they are typed; without a level it is the first.
 * @example parseSkills('radio 2, card readers') // { radio: 2, 'card readers': 1 }
 */
export function parseSkills(text: string): Record<string, number> {
  const parts = text
    .split(',')
    .map((part) => /^\s*(.+?)\s+([1-3])\s*$/.exec(part) ?? /^\s*(.+?)\s*$/.exec(part));
  return Object.fromEntries(
    parts.flatMap((part) => (part ? [[part[1]!, Number(part[2] ?? 1)] as const] : [])),
  );
}

/** The same the other way round. */
export const writeSkills = (skills: Record<string, number>): string =>
  Object.entries(skills)
    .map(([skill, level]) => `${skill} ${level}`)
    .join(', ');
