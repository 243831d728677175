import type { KeptClock } from '../targets';

/** A button on a message in chat: what it is called there and what it does when it comes back. */
export type CardAction = { id: string; name: string; isMain?: boolean | undefined };

/** What a message in chat shows of a ticket, beside its words; changed in place when the ticket changes. */
export type Card = {
  number: number;
  title: string;
  /** One line: who, where, how urgent, in which state, with whom. */
  facts: string;
  /** When it is due, in epoch milliseconds; null where nothing runs. */
  dueAt: number | null;
  isLate: boolean;
  /** The clock that is due first, as it was kept at its last event; null or absent: none. */
  clock?: (KeptClock & { calendarId: string | null }) | null | undefined;
  isOver: boolean;
  link: string;
  actions: CardAction[];
};

/** A field of a form that opens in chat. */
export type ChatField = {
  name: string;
  label: string;
  /** Of several choices the value is the chosen ones, a line each; a date is YYYY-MM-DD, a time HH:MM. */
  kind: 'line' | 'text' | 'choice' | 'choices' | 'date' | 'time';
  value: string;
  choices?: { value: string; label: string }[] | undefined;
  /** Why it is filled so, or what it is for. */
  note?: string | undefined;
  needed?: boolean | undefined;
  /** What is wrong with what was filled in before. */
  error?: string | undefined;
};

/** A form that opens in chat for one person. `callback` comes back with what they filled in. */
export type ChatForm = {
  title: string;
  fields: ChatField[];
  submit: string;
  callback: Record<string, unknown>;
};
