import type { ThingRow, TicketThingRow } from '../server/estate/model';
import type { PersonRow } from '../server/people/model';
import type { TicketRecord } from '../server/tickets/model';
import type { Random } from './random';

/** About which things the tickets of the past were: of the kind that the service is about, where its requester works. */
export function createTies(
  tickets: TicketRecord[],
  things: ThingRow[],
  { people, random }: { people: PersonRow[]; random: Random },
): TicketThingRow[] {
  const siteOf = new Map(people.map((person) => [person.id, person]));
  const of = (kindId: string, siteId: string): ThingRow[] =>
    things.filter((thing) => thing.kindId === kindId && thing.siteId === siteId);
  return tickets.flatMap(({ number, serviceId, requesterId, createdAt }): TicketThingRow[] => {
    const person = siteOf.get(requesterId)!;
    const tie = (thingId: string): TicketThingRow[] => [
      { ticketNumber: number, thingId, how: 'about', isAnswer: false, at: createdAt },
    ];
    if (serviceId === 'sea-link' && person.vessel) return tie(`sea-${person.vessel.toLowerCase()}`);
    if (serviceId === 'roster') return tie('rostering');
    const kindId = { 'gate-scanner': 'scanner', kiosk: 'kiosk' }[serviceId];
    const near = kindId === undefined ? [] : of(kindId, person.siteId);
    if (near.length === 0) return [];
    // The second model of scanner breaks more often than the first.
    const frail = near.filter(({ model }) => model === 'Reader R3');
    return tie(random.pick(frail.length > 0 && random.chance(0.7) ? frail : near).id);
  });
}
