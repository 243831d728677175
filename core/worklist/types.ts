import type { Condition } from '../conditions';

/** By what a list is ordered. `next`: see getMoveBy; `tightest`: by the clock that falls due first. */
export const ORDERS = ['next', 'tightest', 'newest', 'oldest', 'changed', 'closed', 'priority'] as const;
export type Order = (typeof ORDERS)[number];

export const GROUPINGS = [
  'state',
  'heldFor',
  'teamId',
  'assigneeId',
  'priority',
  'serviceId',
  'siteId',
] as const;
export type Grouping = (typeof GROUPINGS)[number];

/** Ways to see a list. */
export const VIEWS = ['time', 'board', 'load', 'calendar', 'shares'] as const;
export type View = (typeof VIEWS)[number];

/** What the columns of a board can stand for. */
export const BOARD_FIELDS = ['state', 'teamId', 'assigneeId', 'progressId', 'priority', 'heldFor'] as const;
export type BoardField = (typeof BOARD_FIELDS)[number];

/** Columns beside the ticket and its fuse. */
export const COLUMNS = [
  'requester',
  'who',
  'priority',
  'team',
  'group',
  'site',
  'service',
  'state',
  'created',
  'changed',
  'due',
  'progress',
  'door',
  'standing',
] as const;
export type ColumnName = (typeof COLUMNS)[number];

export const CARD_FACTS = ['requester', 'who', 'priority', 'service', 'site', 'left', 'progress'] as const;
export type CardFact = (typeof CARD_FACTS)[number];

/** How people mark work themselves: never in the colours of time. */
export const MARKS = ['sea', 'grey', 'stripes', 'dots'] as const;
export type MarkLook = (typeof MARKS)[number];
export type Mark = { condition: Condition; look: MarkLook; means: string };

export type BoardSettings = {
  by: BoardField;
  facts: CardFact[];
  /** The most cards that a column should have, by its value. */
  limits: Record<string, number>;
};

/** A saved selection of work, with its columns and order. */
export type WorklistDefinition = {
  condition: Condition;
  order: Order;
  groupBy: Grouping | null;
  columns: ColumnName[];
  /** What a column means here, where its maker says so. */
  meanings: Partial<Record<ColumnName, string>>;
  seenAs: View;
  marks: Mark[];
  board: BoardSettings;
};
