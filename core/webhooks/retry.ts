const S = 1_000;
const MIN = 60 * S;
const H = 60 * MIN;

/**
 * The pauses after each failed try, in ms: three days in all. They are the schedule that the Standard Webhooks
 * specification suggests (from memory of it).
 */
export const PAUSES_MS = [
  ...[5 * S, 5 * MIN, 30 * MIN, 2 * H, 5 * H],
  ...[10 * H, 14 * H, 20 * H, 24 * H],
] as const;

/** A pause that a receiver asks for is kept up to this, in ms. */
export const LONGEST_ASKED_MS = H;

/**
 * How a receiver answered. `status`: of HTTP; null: nothing came back. `retryAfterMs`: the pause that it asked for.
 * `isRefused`: it must not be called at all.
 */
export type Outcome = { status: number | null; retryAfterMs?: number | null; isRefused?: boolean };

/** What becomes of a delivery. `at`: ms since 1970. `stops`: the receiver wants no more, of anything. */
export type Next =
  { state: 'delivered' } | { state: 'waiting'; at: number } | { state: 'undelivered'; stops: boolean };

/** Taken are the answers 200 to 299. */
export const isTaken = (status: number | null): boolean => status !== null && status >= 200 && status < 300;

/**
 * What becomes of a delivery after a try: taken, tried again after a growing pause, or given up. 410 (Gone) says that
 * the receiver wants no more.
 * @param tries how often it has been tried, this one counted
 * @param now ms since 1970
 */
export function nextOf(outcome: Outcome, tries: number, now: number): Next {
  if (isTaken(outcome.status)) return { state: 'delivered' };
  const pause = PAUSES_MS[tries - 1];
  const stops = outcome.status === 410;
  if (stops || outcome.isRefused || pause === undefined) return { state: 'undelivered', stops };
  const asked = Math.min(outcome.retryAfterMs ?? 0, LONGEST_ASKED_MS);
  return { state: 'waiting', at: now + Math.max(pause, asked) };
}

/**
 * The pause that a Retry-After field asks for, in ms (RFC 9110, 10.2.3: seconds or a date); null: it asks for none.
 * @param now ms since 1970
 */
export function parseRetryAfter(field: string | undefined, now: number): number | null {
  if (field === undefined) return null;
  if (/^\d{1,9}$/.test(field.trim())) return Number(field) * S;
  const at = Date.parse(field);
  return Number.isNaN(at) ? null : Math.max(0, at - now);
}
