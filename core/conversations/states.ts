/**
 * waiting: in its line. offered: an agent is asked to take it. open: with an agent. ended: over, to be come back to
 * within the day.
 */
export const CONVERSATION_STATES = ['waiting', 'offered', 'open', 'ended'] as const;
/** Where a conversation stands. */
export type ConversationState = (typeof CONVERSATION_STATES)[number];

const DAY_MS = 86_400_000;

/** Whether its employee can come back to it. */
export function mayComeBack(endedAt: number | null, now: number): boolean {
  return endedAt !== null && now - endedAt < DAY_MS;
}

/** Who waits for whom, and since when: the employee from their last words that were not answered, or the agent. */
export function whoWaits({
  personSaidAt,
  agentSaidAt,
}: {
  personSaidAt: number;
  agentSaidAt: number | null;
}): { who: 'person' | 'agent'; since: number } {
  return agentSaidAt === null || personSaidAt > agentSaidAt
    ? { who: 'person', since: personSaidAt }
    : { who: 'agent', since: agentSaidAt };
}
