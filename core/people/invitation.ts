const DAY_MS = 86_400_000;

/** How long a link lets somebody in, in ms: seven days. */
export const INVITATION_MS = 7 * DAY_MS;

/** How long a link for a forgotten password lets somebody in, in ms: an hour. */
export const FORGOTTEN_MS = 3_600_000;

/** Where an invitation stands; a later one to the same person takes an earlier one's place. */
export type InvitationState = 'open' | 'used' | 'ended' | 'replaced';

/** An invitation by its instants, ms since the epoch. */
export type Invitation = { endsAt: number; usedAt: number | null; replacedAt: number | null };

/** Whether an invitation still lets somebody in, and if not, why. */
export function invitationState({ endsAt, usedAt, replacedAt }: Invitation, now: number): InvitationState {
  if (usedAt !== null) return 'used';
  if (replacedAt !== null) return 'replaced';
  return now >= endsAt ? 'ended' : 'open';
}
