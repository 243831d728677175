import type { TeamRole } from '../rights';

/** Of whom a second factor is asked when they sign in with a password of their own. */
export const FACTOR_ASKED_OF = ['nobody', 'administrators', 'teams'] as const;
/** Of nobody; of administrators; of them and of all who work in a team. */
export type FactorAskedOf = (typeof FACTOR_ASKED_OF)[number];

/** How people sign in. */
export type SignOnSettings = {
  /** Null: everybody may have a password of their own; else the one person who may, for an emergency. */
  passwordsOnlyOf: string | null;
  factorAskedOf: FactorAskedOf;
};

/** As it is until somebody says otherwise. */
export const USUAL_SIGN_ON: SignOnSettings = { passwordsOnlyOf: null, factorAskedOf: 'nobody' };

/** Whether someone may sign in with a password of their own. */
export const mayUsePassword = ({ passwordsOnlyOf }: SignOnSettings, personId: string): boolean =>
  passwordsOnlyOf === null || passwordsOnlyOf === personId;

/** How someone may come in, the nearest first: by a password, by a provider, by a link that waits, or not at all yet. */
export const WAYS_IN = ['password', 'provider', 'invited', 'none'] as const;
/** How someone may come in. */
export type WayIn = (typeof WAYS_IN)[number];

/** How someone may come in. */
export function toWayIn(has: { hasPassword: boolean; hasProvider: boolean; isInvited: boolean }): WayIn {
  if (has.hasPassword) return 'password';
  if (has.hasProvider) return 'provider';
  return has.isInvited ? 'invited' : 'none';
}

/** Whether a second factor is asked of someone who signs in with a password of their own. */
export function needsFactor(
  { factorAskedOf }: Pick<SignOnSettings, 'factorAskedOf'>,
  { isAdministrator, teams }: { isAdministrator: boolean; teams: { role: TeamRole }[] },
): boolean {
  if (factorAskedOf === 'nobody') return false;
  return isAdministrator || (factorAskedOf === 'teams' && teams.length > 0);
}
