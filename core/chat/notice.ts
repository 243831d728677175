import { getOwn } from '../records';

/** What can happen that a room or someone is told of, beside what the ticket's own people are told. */
export const NOTICE_EVENTS = ['newTicket', 'priorityOne', 'late', 'reopened', 'done'] as const;
/** Something at which a message can go out to chat. */
export type NoticeEvent = (typeof NOTICE_EVENTS)[number];

/** What the words of such a message can be composed from. */
export const NOTICE_BLANKS = [
  'number',
  'title',
  'requester',
  'team',
  'service',
  'priority',
  'place',
  'state',
  'assignee',
] as const;

/** Blanks in the words that nothing fills. */
export function findUnknownNoticeBlanks(words: string): string[] {
  const blanks = [...words.matchAll(/\{(\w+)\}/gu)].map(([, name]) => name!);
  return [...new Set(blanks)].filter((name) => !NOTICE_BLANKS.some((known) => known === name));
}

/** @example writeNotice('{number}: {title}', { number: '20418', title: 'Kiosk 3' }) // '20418: Kiosk 3' */
export function writeNotice(words: string, facts: Partial<Record<string, string>>): string {
  return words.replace(/\{(\w+)\}/gu, (blank, name: string) => getOwn(facts, name) ?? blank);
}
