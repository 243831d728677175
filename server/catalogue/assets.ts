import { escapeLike } from '../database/like';
import type { Listo } from '../listo';

const FOUND = 30;
type Found = { id: string; kind: string; name: string; whose: 'own' | 'near' | 'other' };

/** Things by a few letters: one's own first, then those of one's site or department, then all. */
export function findAssets(
  { db }: Listo,
  personId: string,
  { q, kind }: { q: string; kind?: string | undefined },
): Promise<Found[]> {
  const pattern = `%${escapeLike(q.trim())}%`;
  return db.select<Found>(
    `SELECT a.id, a.kind, a.name,
       CASE WHEN a.ownerId = p.id OR a.name LIKE CONCAT('% ', p.vessel) THEN 'own'
         WHEN a.siteId = p.siteId OR a.department = p.department THEN 'near' ELSE 'other' END AS whose
     FROM assets a JOIN people p ON p.id = :personId
     WHERE a.name LIKE :pattern AND (:kind = '' OR a.kind = :kind)
     ORDER BY FIELD(whose, 'own', 'near', 'other'), a.name LIMIT :limit`,
    { personId, pattern, kind: kind ?? '', limit: FOUND },
  );
}
