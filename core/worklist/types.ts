import type { Condition } from '../conditions';

/** By what a list is ordered. `next`: see getMoveBy; `tightest`: by the clock that falls due first. */
export const ORDERS = ['next', 'tightest', 'newest', 'oldest', 'changed', 'closed', 'priority'] as const;
/** What a list is ordered by. */
export type Order = (typeof ORDERS)[number];

/** What a list may be grouped by. */
export const GROUPINGS = [
  'state',
  'heldFor',
  'teamId',
  'assigneeId',
  'priority',
  'serviceId',
  'siteId',
] as const;
/** What a list is grouped by. */
export type Grouping = (typeof GROUPINGS)[number];

/** Ways to see a list. */
export const VIEWS = ['time', 'board', 'load', 'calendar', 'shares'] as const;
/** How a list is seen. */
export type View = (typeof VIEWS)[number];

/** What the columns of a board can stand for. */
export const BOARD_FIELDS = ['state', 'teamId', 'assigneeId', 'progressId', 'priority', 'heldFor'] as const;
/** What the columns of a board stand for. */
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
  'mail',
  'phone',
  'department',
  'estimate',
  'spent',
] as const;
/** A column of a list. */
export type ColumnName = (typeof COLUMNS)[number];

/** What the cards of a board may say. */
export const CARD_FACTS = ['left', ...COLUMNS] as const;
/** Something that a card says. */
export type CardFact = (typeof CARD_FACTS)[number];

/** How people mark work themselves: never in the colours of time. */
export const MARKS = ['sea', 'grey', 'stripes', 'dots'] as const;
/** How a mark looks. */
export type MarkLook = (typeof MARKS)[number];
/** Rows that meet a condition are marked, with what that means. */
export type Mark = { condition: Condition; look: MarkLook; means: string };

/** How a board is put together. */
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
