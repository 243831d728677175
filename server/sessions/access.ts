import { USUAL_SIGN_ON, type SignOnSettings } from '../../core/signOn';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import type { Reading, UnitOfWork } from '../unitOfWork';

/** The name under which it is kept how people sign in. */
export const SIGN_ON_SETTING = 'signOn';

/** How people sign in, as it is kept. */
export const toSignOn = (value: unknown): SignOnSettings => ({
  ...USUAL_SIGN_ON,
  ...(value as Partial<SignOnSettings> | null),
});

/** How people sign in. */
export async function readSignOn(listo: Listo, tx?: Reading['tx']): Promise<SignOnSettings> {
  const setting = await listo.db.tables.settings.findOne({ name: SIGN_ON_SETTING }, tx);
  return toSignOn(setting?.value ?? null);
}

/** Refuses what would leave an organisation without passwords without the one for an emergency. `personId`: who goes. */
export async function requireEmergency({ listo, tx }: UnitOfWork, personId: string): Promise<void> {
  if ((await readSignOn(listo, tx)).passwordsOnlyOf === personId) throw new ProblemError('emergencyPassword');
}
