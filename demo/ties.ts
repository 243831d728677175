import type { JournalEntry } from '../core/journal';
import type { ThingRow, TicketThingRow } from '../server/estate/model';
import type { PersonRow } from '../server/people/model';
import type { TicketRecord } from '../server/tickets/model';
import { toEntry } from '../server/journal/append';
import type { Random } from './random';

/** What people report from their desks. */
const AT_A_DESK = new Set(['other', 'locked-out', 'printing']);

/** About which things the tickets of the past were: of the kind that the service is about, where its requester works. */
export function createTies(
  tickets: TicketRecord[],
  things: ThingRow[],
  { people, random }: { people: PersonRow[]; random: Random },
): TicketThingRow[] {
  const siteOf = new Map(people.map((person) => [person.id, person]));
  const of = (kindId: string, siteId: string): ThingRow[] =>
    things.filter((thing) => thing.kindId === kindId && thing.siteId === siteId);
  return tickets.flatMap(({ number, title, serviceId, requesterId, createdAt }): TicketThingRow[] => {
    const person = siteOf.get(requesterId)!;
    const tie = (thingId: string): TicketThingRow[] => [
      { ticketNumber: number, thingId, how: 'about', isAnswer: false, at: createdAt },
    ];
    if (serviceId === 'sea-link' && person.vessel) return tie(`sea-${person.vessel.toLowerCase()}`);
    if (serviceId === 'roster') return tie('rostering');
    const laptop = things.find(({ kindId, holderId }) => kindId === 'laptop' && holderId === requesterId);
    // One model of laptops breaks more often than the others.
    if (laptop && AT_A_DESK.has(serviceId))
      return random.chance(laptop.model === 'Tern 13' ? 0.55 : 0.12) ? tie(laptop.id) : [];
    const kindId = { 'gate-broken': 'scanner', kiosk: 'kiosk' }[serviceId];
    const near = kindId === undefined ? [] : of(kindId, person.siteId);
    const numbered = near.find(({ name }) => name.startsWith(`${/Kiosk \d/.exec(title)?.[0]},`));
    if (numbered && requesterId === 'tomas') return tie(numbered.id);
    return near.length > 0 && random.chance(0.3) ? tie(random.pick(near).id) : [];
  });
}

const HALF_A_YEAR = 182 * 86_400_000;
const MADE_BY = 'marta';

/** What happened to things in the last half year: handed over, and what their holders say of them. */
export function createThingEntries(things: ThingRow[], now: number): JournalEntry[] {
  const of = { via: 'desk', ticketNumber: null, audience: 'team' } as const;
  return things.flatMap(({ id, name, holderId, handedAt, state, claim, claimAt }): JournalEntry[] => {
    if (holderId === null || handedAt === null || handedAt < now - HALF_A_YEAR) return [];
    const data = { thingId: id, name, personIds: [holderId] };
    const handed = {
      ...({ ...of, type: 'thingActed', actorId: MADE_BY } as const),
      changes: { state: { from: 'inStore', to: state }, holderId: { from: null, to: holderId } },
      data: { ...data, act: state === 'lent' ? ('lend' as const) : ('handOver' as const) },
    };
    const said = {
      ...({ ...of, type: 'thingSaid', actorId: holderId } as const),
      changes: { claim: { from: null, to: claim } },
      data: { ...data, claim },
    };
    return [toEntry(handedAt, handed), ...(claimAt === null ? [] : [toEntry(claimAt, said)])];
  });
}
