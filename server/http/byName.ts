import { ProblemError } from './problems';

/** Where a page of a list by name ended: the name and the id of its last row. */
export const toCursor = ({ name, id }: { name: string; id: string }): string => JSON.stringify([name, id]);

/** After which row the next page begins. @throws ProblemError where it is no cursor of ours */
export function fromCursor(text: string): { name: string; id: string } {
  try {
    const [name, id] = JSON.parse(text) as [unknown, unknown];
    if (typeof name === 'string' && typeof id === 'string') return { name, id };
  } catch {
    // Said below.
  }
  throw new ProblemError('fieldsNotValid', { fields: [{ field: 'after', code: 'malformed' }] });
}
