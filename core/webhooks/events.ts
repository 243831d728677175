import type { Condition } from '../conditions';
import { TICKET_ENTRIES, type JournalEntry, type ShownKind, type TicketEntryKind } from '../journal';
import { checkProvided } from '../rules';

/** Kinds that tell of what the product does about its own telling: nothing happened to the ticket by them. */
const INNER = new Set<TicketEntryKind>(['undone', 'askReminded', 'slipTold', 'ruleFailed']);

/** The kinds of entries that other programs can be told of. */
export const WEBHOOK_KINDS = (Object.keys(TICKET_ENTRIES) as TicketEntryKind[]).filter(
  (kind) => TICKET_ENTRIES[kind].isShown && !INNER.has(kind),
) as [ShownKind, ...ShownKind[]];

/** The type of an event, in words with full stops between, as Standard Webhooks have it. @example 'ticket.done' */
export const toEventType = (kind: string): string => `ticket.${kind}`;

/** What a webhook is told of. No kinds: every kind that there is. */
export type Subscription = { kinds: string[]; provided: Condition };

/** What is wrong with a subscription; none: it can be asked. */
export function checkSubscription({ kinds, provided }: Subscription): { field: string; code: string }[] {
  const known: string[] = WEBHOOK_KINDS;
  const unknown = kinds.flatMap((kind, i) =>
    known.includes(kind) ? [] : [{ field: `kinds.${i}`, code: 'notAChoice' }],
  );
  return [...unknown, ...checkProvided(provided).map(({ code }) => ({ field: 'provided', code }))];
}

/** Whether a webhook hears of an entry, judged by its kind alone. */
export const hearsOf = (
  { kinds }: Pick<Subscription, 'kinds'>,
  { type }: Pick<JournalEntry, 'type'>,
): boolean => (kinds.length === 0 ? (WEBHOOK_KINDS as string[]).includes(type) : kinds.includes(type));
