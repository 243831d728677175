/** After how many minutes without a word from the employee they are asked whether they are there, and after how many it ends. */
export type SilenceTimes = { askAfter: number; endAfter: number };
/** What a silence in a conversation calls for. */
export type Silence = 'nothing' | 'ask' | 'end';

const MINUTE = 60_000;

/**
 * What silence comes to: the employee is asked first, and it ends only after they have been. Where it is the agent's turn
 * it never ends by itself.
 */
export function afterSilence(
  facts: { personSaidAt: number; agentSaidAt: number | null; askedAt: number | null },
  { askAfter, endAfter }: SilenceTimes,
  now: number,
): Silence {
  const { personSaidAt, agentSaidAt, askedAt } = facts;
  if (agentSaidAt === null || personSaidAt > agentSaidAt) return 'nothing';
  const isAsked = askedAt !== null && askedAt > Math.max(personSaidAt, agentSaidAt);
  if (!isAsked) return now - agentSaidAt >= askAfter * MINUTE ? 'ask' : 'nothing';
  return now - askedAt >= endAfter * MINUTE ? 'end' : 'nothing';
}
