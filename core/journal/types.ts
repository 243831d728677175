import type { Door } from '../tickets';

/** By which way something came about: a door of people, a rule of the product, a timer, or another program. */
export type Via = Door | 'rule' | 'timer' | 'api';

/** What became of fields, by their names. */
export type Changes = Record<string, { from: unknown; to: unknown }>;

/** Who may read an entry of a ticket: its requester and the team, or the team alone. */
export type Audience = 'requester' | 'team';
