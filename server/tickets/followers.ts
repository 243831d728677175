import { change, type Actor } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { requireTicket } from './guard';
import type { FollowerRow } from './model';
import { recordChange } from './record';
import { createRights, may } from '../../core/rights';

type Follower = Omit<FollowerRow, 'ticketNumber'>;

/** The requester shares their ticket; the team has people told and asks collaborators in. */
async function changeFollowers(
  listo: Listo,
  { viewer, actor, number }: { viewer: SignedIn; actor: Actor; number: number },
  { follower: { personId, role }, isAdded }: { follower: Follower; isAdded: boolean },
): Promise<{ ok: true }> {
  const { tables } = listo.db;
  return change(listo, actor, async (tx) => {
    const { ticket, guarded } = await requireTicket({ listo, viewer, tx }, { number, action: 'read' });
    const rights = createRights(viewer);
    const isOwn = role === 'alsoTold' && may(rights, 'own', guarded);
    if (!isOwn && !may(rights, role === 'alsoTold' ? 'work' : 'askIn', guarded))
      throw new ProblemError('forbidden');
    if (!(await tables.people.findOne({ id: personId, leftAt: null }, tx)))
      throw new ProblemError('fieldsNotValid', { fields: [{ field: 'personId', code: 'notAChoice' }] });
    const key = { ticketNumber: number, personId, role };
    const removed = await tables.followers.remove(key, tx);
    if (isAdded) await tables.followers.insert(key, tx);
    if (isAdded ? removed === 1 : removed === 0) return OK;
    await recordChange({ listo, tx }, ticket, {
      changes: {},
      entry: {
        type: isAdded ? 'followed' : 'unfollowed',
        actorId: viewer.id,
        via: isOwn ? 'portal' : 'desk',
        audience: role === 'alsoTold' ? 'requester' : 'team',
        data: { personId, role },
      },
    });
    return OK;
  });
}

type Where = { viewer: SignedIn; actor: Actor; number: number };

export function addFollower(listo: Listo, where: Where, follower: Follower) {
  return changeFollowers(listo, where, { follower, isAdded: true });
}

export function removeFollower(listo: Listo, where: Where, follower: Follower) {
  return changeFollowers(listo, where, { follower, isAdded: false });
}
