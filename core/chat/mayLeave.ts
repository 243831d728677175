/**
 * Where words from a ticket's thread could go in chat: the closed room of its team, a room where employees ask, someone's
 * direct talk with Listo, or a room or person that is told when something happens.
 */
export type Place = 'teamRoom' | 'askRoom' | 'direct' | 'notice';

/**
 * Whether words may leave to such a place: what the requester reads may go wherever the ticket goes; what is the team's
 * goes into the team's closed room and nowhere else. The only place that says so.
 */
export function mayLeave(readBy: 'requester' | 'team', place: Place): boolean {
  return readBy === 'requester' ? place !== 'notice' : place === 'teamRoom';
}
