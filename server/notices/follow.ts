import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import type { Changing } from '../unitOfWork';
import { listMine } from './read';

/** Has it too, and hears how it goes on without a ticket; or no longer. */
export async function followNotice(
  { listo, viewer, actor }: Changing,
  id: string,
  isFollowed: boolean,
): Promise<{ ok: true }> {
  const mine = await listMine({ listo, viewer }, { q: '' });
  if (!mine.some((notice) => notice.id === id)) throw new ProblemError('notFound');
  return change(listo, actor, async (tx) => {
    const { noticeFollowers } = listo.db.tables;
    const key = { noticeId: id, personId: viewer.id };
    if (!isFollowed) await noticeFollowers.remove(key, tx);
    else await noticeFollowers.insertAll([{ ...key, at: listo.clock.now() }], tx, { updates: ['at'] });
    return OK;
  });
}
