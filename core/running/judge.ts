/** What has to keep up by itself, each with what waits for it. */
export const PARTS = ['follows', 'timers', 'mail', 'chat', 'webhooks', 'jobs', 'database'] as const;
/** One of them. */
export type Part = (typeof PARTS)[number];

/** How a part is: how many wait for it, and for how many ms the one that waits longest. */
export type Waiting = { waiting: number; longestMs: number };
/** Whether it keeps up, is behind, or does not move at all; the worse ones last. */
export const STANDINGS = ['well', 'behind', 'stuck'] as const;
/** One of them. */
export type Standing = (typeof STANDINGS)[number];

const SECOND = 1_000;
const MINUTE = 60 * SECOND;

/**
 * From when on (ms) a part is behind, and from when on nothing seems to move. What people see on their pages has
 * seconds; what an outside server may keep waiting has minutes. The values are our own.
 */
const BOUNDS: Record<Part, { behind: number; stuck: number }> = {
  follows: { behind: 2 * SECOND, stuck: MINUTE },
  timers: { behind: 5 * SECOND, stuck: 2 * MINUTE },
  mail: { behind: MINUTE, stuck: 15 * MINUTE },
  chat: { behind: 30 * SECOND, stuck: 10 * MINUTE },
  webhooks: { behind: MINUTE, stuck: 60 * MINUTE },
  jobs: { behind: MINUTE, stuck: 10 * MINUTE },
  database: { behind: SECOND, stuck: 10 * SECOND },
};

/**
 * How a part stands.
 * @example judgePart('follows', { waiting: 3, longestMs: 400 }) // 'well'
 */
export function judgePart(part: Part, { waiting, longestMs }: Waiting): Standing {
  if (waiting === 0) return 'well';
  const { behind, stuck } = BOUNDS[part];
  if (longestMs >= stuck) return 'stuck';
  return longestMs >= behind ? 'behind' : 'well';
}

/** The worst of some; well where there are none. */
export function worstOf(standings: readonly Standing[]): Standing {
  return STANDINGS[Math.max(0, ...standings.map((each) => STANDINGS.indexOf(each)))]!;
}
