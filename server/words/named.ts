import type { Named } from '../../contract/words';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { visibleTo } from '../tickets/visibility';

/** Tickets by number, as far as one may see them. */
export function readNamed(listo: Listo, viewer: SignedIn, numbers: number[]): Promise<Named[]> {
  const { sql, values } = visibleTo(viewer);
  return listo.db.select<Named>(
    `SELECT t.number, t.title, t.state FROM tickets t WHERE t.number IN (:numbers) AND ${sql}`,
    { ...values, numbers },
  );
}
