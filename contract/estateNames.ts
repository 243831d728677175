/** Who sees the things of a kind: everyone in forms, whoever works at the Desk, or the teams that keep it alone. */
export const SEEN_BY = ['everyone', 'desk', 'keepers'] as const;
/** Who sees the things of a kind. */
export type SeenBy = (typeof SEEN_BY)[number];

/** What the holder of a thing can say that others then deal with: never had it, lost it, gave it back. */
export const THING_CLAIMS = ['haveNot', 'lost', 'returned'] as const;
/** What the holder of a thing says of it. */
export type ThingClaim = (typeof THING_CLAIMS)[number];

/** How a ticket is tied to a thing: it is about it, or was caused by it. */
export const TIES = ['about', 'cause'] as const;
/** How a ticket is tied to a thing. */
export type Tie = (typeof TIES)[number];
