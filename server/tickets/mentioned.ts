import { createRights, may } from '../../core/rights';
import { findMentions } from '../../core/words';
import type { Listo } from '../listo';
import { findPersonAsViewer } from '../sessions/viewer';
import type { Guarded } from './guard';
import type { UnitOfWork } from '../unitOfWork';

export type ReadBy = 'requester' | 'team';

/** Those of some people who may read words on a ticket that are for the team or for the requester. */
export async function keepReaders(
  listo: Listo,
  { guarded }: Guarded,
  { readBy, personIds }: { readBy: ReadBy; personIds: string[] },
): Promise<string[]> {
  const kept: string[] = [];
  for (const personId of new Set(personIds)) {
    const viewer = await findPersonAsViewer(listo, personId);
    if (viewer && may(createRights(viewer), readBy === 'team' ? 'readNotes' : 'read', guarded))
      kept.push(personId);
  }
  return kept;
}

/** Everyone who has to do with a ticket, on the side that words are for. */
export function everyoneOn({ ticket, guarded }: Guarded, readBy: ReadBy): string[] {
  const onTeam = [...guarded.collaboratorIds, ...(ticket.assigneeId === null ? [] : [ticket.assigneeId])];
  return readBy === 'team' ? onTeam : [guarded.requesterId, ...guarded.alsoToldIds, ...onTeam];
}

/** The people whom some words call and who may read them. */
export async function findMentioned(
  { listo, tx }: UnitOfWork,
  found: Guarded,
  { text, readBy }: { text: string; readBy: ReadBy },
): Promise<string[]> {
  const personIds: string[] = [];
  for (const mention of findMentions(text))
    if (mention.kind === 'person') personIds.push(mention.id);
    else if (mention.kind === 'everyone') personIds.push(...everyoneOn(found, readBy));
    else {
      const members = await listo.db.tables.members.find({ teamId: mention.id }, { transaction: tx });
      personIds.push(...members.map(({ personId }) => personId));
    }
  return keepReaders(listo, found, { readBy, personIds });
}
