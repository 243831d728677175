/**
 * Where words from a ticket's thread could go in chat: the closed room of its team; a room in which everyone may read the
 * ticket; a room in which others read along; someone's direct talk with Listo; or a room or person that is told when
 * something happens.
 */
export type Place = 'teamRoom' | 'readersRoom' | 'openRoom' | 'direct' | 'notice';

/**
 * Whether words may leave to such a place. What is the team's goes into the team's closed room and nowhere else. What the
 * requester reads goes where only readers of the ticket are; into a room in which others read along only where its author
 * chose that, knowing who reads it. The only place that says so.
 */
export function mayLeave(readBy: 'requester' | 'team', place: Place, isChosen = false): boolean {
  if (readBy === 'team') return place === 'teamRoom';
  return place === 'openRoom' ? isChosen : place !== 'notice';
}
