/** What a thing needs to work: at least so many of some other things, by their ids. */
export type Need = { thing: string; atLeast: number; of: string[] };

/** Whether a thing works: wholly, with less behind it than it should have, or not at all. */
export type Standing = 'up' | 'weakened' | 'down';

/**
 * How a thing stands.
 * - fell: the round in which it went down, 0 where it failed itself; null where it is not down
 * - unmet: which needs (by their place among all) are not met, ascending, where it is down and did not fail itself
 */
export type Stands = { standing: Standing; fell: number | null; unmet: number[] };

/** A piece of work that takes things out, in [from, to), instants in ms since the epoch. */
export type Work = { id: string; takesOut: string[]; from: number; to: number };

/** A stretch [from, to) in which no work may be going on at some things; null: at anything. */
export type Freeze = { id: string; things: string[] | null; from: number; to: number };

/** What makes works clash: at one thing, taking down together what none does alone, in a freeze, taking something down alone. */
export type ClashKind = 'same' | 'together' | 'frozen' | 'alone';

/** Why works should not be going on as planned, and from when to when. */
export type Clash = {
  kind: ClashKind;
  works: string[];
  things: string[];
  from: number;
  to: number;
  freeze?: string;
};

/** A rough degree of likelihood, impact or risk. */
export type Level = 'low' | 'medium' | 'high';

/** A stretch without service; `to` null: it still is. */
export type Outage = { from: number; to: number | null };
