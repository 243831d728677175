import type { Conversation } from '../../contract/conversations';

const keyOf = (id: string): string => `listo-talk-read:${id}`;

/** How much of what agents said in a conversation was on this screen. */
export function readSoFar(id: string): number {
  return Number(localStorage.getItem(keyOf(id)) ?? 0);
}

export function keepRead(id: string, said: number): void {
  if (said > readSoFar(id)) localStorage.setItem(keyOf(id), String(said));
}

/** How much agents said to the person in a conversation. */
export function countSaid({ entries, person }: Pick<Conversation, 'entries' | 'person'>): number {
  return entries.filter(
    ({ type, readBy, author }) => type === 'words' && readBy === 'all' && author && author.id !== person.id,
  ).length;
}
