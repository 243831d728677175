import { toMark } from '../../core/estate';
import { escapeLike } from '../database/like';
import type { Listo } from '../listo';
import type { Reading } from '../unitOfWork';
import type { ThingRow } from './model';

const FOUND = 30;
type Found = { id: string; kind: string; name: string; whose: 'own' | 'near' | 'other' };

/**
 * Things by a few letters of their name or tag: one's own first, then those of one's site or department, then all. Of
 * kinds that not everyone sees, one finds one's own alone. What is retired is not offered.
 */
export function findThings(
  { db }: Listo,
  personId: string,
  { q, kind }: { q: string; kind?: string | undefined },
): Promise<Found[]> {
  const pattern = `%${escapeLike(q.trim())}%`;
  return db.select<Found>(
    `SELECT a.id, a.kindId AS kind, a.name,
       CASE WHEN a.holderId = p.id OR a.ownerId = p.id OR a.name LIKE CONCAT('% ', p.vessel) THEN 'own'
         WHEN a.siteId = p.siteId OR a.department = p.department THEN 'near' ELSE 'other' END AS whose
     FROM things a JOIN people p ON p.id = :personId JOIN thing_kinds k ON k.id = a.kindId
     WHERE (a.name LIKE :pattern OR a.tagMark LIKE :mark) AND (:kind = '' OR a.kindId = :kind) AND a.state <> 'retired'
       AND (k.seenBy = 'everyone' OR a.holderId = p.id OR a.ownerId = p.id)
     ORDER BY FIELD(whose, 'own', 'near', 'other'), a.name LIMIT :limit`,
    { personId, pattern, mark: `%${escapeLike(toMark(q))}%`, kind: kind ?? '', limit: FOUND },
  );
}

/** The things that a tag, a serial number or an id names, as it was scanned or typed. */
export async function findByMark({ listo, tx }: Reading, words: string): Promise<ThingRow[]> {
  const { things } = listo.db.tables;
  const mark = toMark(words);
  if (mark === '') return [];
  const tagged = await things.find({ tagMark: mark }, { ...(tx && { transaction: tx }) });
  if (tagged.length > 0) return tagged;
  const known = await things.find({ id: words.trim().slice(0, 40) }, { ...(tx && { transaction: tx }) });
  if (known.length > 0) return known;
  return things.find({ serialMark: mark }, { limit: 50, ...(tx && { transaction: tx }) });
}
