import type { ThingNeedRow, ThingRow } from '../server/estate/model';
import { toMark } from '../core/estate';
import type { PersonRow } from '../server/people/model';
import { VESSELS, type Organisation } from './organisation';
import type { Random } from './random';

const DAY = 86_400_000;
const dayOf = (at: number): string => new Date(at).toISOString().slice(0, 10);

type Said = { id: string; kindId: string; name: string } & Partial<ThingRow>;

function toThing({ id, kindId, name, ...said }: Said): ThingRow {
  return {
    ...{ id, kindId, name, tag: '', serial: '', model: '', state: 'inUse', ownerId: null, holderId: null },
    ...{ siteId: null, department: null, lentUntil: null, place: '', vessel: '', teamId: null, cost: null },
    ...{ boughtOn: null, warrantyUntil: null, contract: '', isWatched: false, dependable: null, fields: {} },
    ...{ handedAt: null, confirmedAt: null, claim: null, claimAt: null, seenAt: null, version: 1 },
    ...said,
    tagMark: toMark(said.tag ?? '') || null,
    serialMark: toMark(said.serial ?? '') || null,
  };
}

type World = { organisation: Organisation; random: Random; now: number };
type Model = { model: string; cost: number; years: number };
const MODELS = {
  laptop: [
    { model: 'Tern 14', cost: 118_900, years: 3 },
    { model: 'Tern 13', cost: 104_900, years: 3 },
    { model: 'Curlew 15', cost: 139_000, years: 3 },
  ],
  tablet: [
    { model: 'Slate 8', cost: 42_900, years: 2 },
    { model: 'Slate 10', cost: 51_500, years: 2 },
  ],
  scanner: [
    { model: 'Reader R2', cost: 61_000, years: 3 },
    { model: 'Reader R3', cost: 69_500, years: 3 },
  ],
  kiosk: [{ model: 'Column K4', cost: 389_000, years: 5 }],
} satisfies Record<string, Model[]>;

/** What was bought some time ago, with its warranty, serial number and when it was last heard of. */
function bought(kindId: keyof typeof MODELS, { random, now }: World): Partial<ThingRow> {
  const { model, cost, years } = random.pick<Model>(MODELS[kindId]);
  const at = now - random.between(30, 1_500) * DAY;
  const code = Math.floor(random.between(1_000_000, 9_999_999));
  return {
    ...{ model, cost, boughtOn: dayOf(at), warrantyUntil: dayOf(at + years * 365 * DAY) },
    ...{ serial: `${model.replace(/\W/g, '').slice(0, 3).toUpperCase()}${code}` },
    seenAt: now - random.between(0, 1) ** 6 * 160 * DAY,
    fields: { system: `Harbour OS ${Math.floor(random.between(9, 13))}`, storage: 256 },
  };
}

/** What people carry. */
function createCarried(world: World): ThingRow[] {
  const { organisation, random, now } = world;
  const had = (person: PersonRow): Partial<ThingRow> => ({
    ...{ holderId: person.id, ownerId: person.id, siteId: person.siteId, department: person.department },
    handedAt: now - random.between(40, 700) * DAY,
  });
  const confirmed = (thing: Partial<ThingRow>) => ({ ...thing, confirmedAt: thing.handedAt! + DAY / 4 });
  const tablets = organisation.people
    .filter(({ device }) => device !== null)
    .map((person) => {
      const tag = /[A-Z]-\d+$/.exec(person.device!)?.[0] ?? '';
      return toThing({
        ...{ id: `device-${person.id}`, kindId: 'tablet', name: person.device!, tag },
        ...bought('tablet', world),
        ...confirmed(had(person)),
      });
    });
  const laptops = organisation.people
    .filter(({ siteId, id }) => siteId === 'head' || ['tomas', 'rosa', 'yves', 'lena'].includes(id))
    .map((person, i) => {
      const tag = `L-${String(1200 + i)}`;
      const given = had(person);
      return toThing({
        ...{ id: `laptop-${person.id}`, kindId: 'laptop', name: `Laptop ${tag}`, tag },
        ...bought('laptop', world),
        ...(i % 17 === 3 ? { ...given, handedAt: now - 2 * DAY } : confirmed(given)),
        ...(i % 41 === 7 ? { claim: 'returned' as const, claimAt: now - DAY / 3 } : {}),
      });
    });
  const inStore = Array.from({ length: 14 }, (_, i) => {
    const tag = `L-${String(1900 + i)}`;
    const state = i < 9 ? ('inStore' as const) : i < 12 ? ('lent' as const) : ('inRepair' as const);
    const lent = { holderId: ['ana', 'bia', 'ines'][i - 9] ?? null, lentUntil: now + (i - 10) * 3 * DAY };
    return toThing({
      ...{ id: `laptop-pool-${i}`, kindId: 'laptop', name: `Loan laptop ${tag}`, tag, state, siteId: 'head' },
      ...{ place: 'Store room', ...bought('laptop', world) },
      ...(state === 'lent' && { ...lent, handedAt: now - 9 * DAY, confirmedAt: now - 8 * DAY }),
    });
  });
  return [...tablets, ...laptops, ...inStore];
}

type Needed = { things: ThingRow[]; needs: ThingNeedRow[] };
const needOf = (thingId: string, atLeast: number, ...members: string[]): ThingNeedRow => ({
  ...{ id: `${thingId}-${members[0]}`.slice(0, 40), thingId, atLeast, members, isGone: false },
});

type Terminal = [id: string, name: string, places: string[]];

/** The scanners of a terminal's gates and the kiosks of its hall. */
function createDevices([id, name, places]: Terminal, world: World): ThingRow[] {
  const short = id.slice(0, 3).toUpperCase();
  const gates = places.filter((place) => place.startsWith('Gate'));
  const hall = places.find((place) => place === 'Ticket hall');
  const scanners = gates.flatMap((place, g) =>
    [1, 2].map((n) =>
      toThing({
        ...{ id: `scanner-${id}-${g}-${n}`, kindId: 'scanner', name: `Scanner ${name}, ${place} (${n})` },
        ...{ tag: `S-${short}${g + 1}${n}`, place, teamId: 'desk', siteId: id, ...bought('scanner', world) },
      }),
    ),
  );
  const kiosks = (hall ? [1, 2, 3] : [1]).map((n) =>
    toThing({
      ...{ id: `kiosk-${id}-${n}`, kindId: 'kiosk', name: `Kiosk ${n}, ${name}`, tag: `K-${short}${n}` },
      ...{ place: hall ?? places[0]!, teamId: 'facilities', siteId: id, ...bought('kiosk', world) },
    }),
  );
  return [...scanners, ...kiosks];
}

/** A terminal: its lines, its network, and what hangs on it. */
function createTerminal(terminal: Terminal, world: World): Needed {
  const [id, name, places] = terminal;
  const isLarge = id === 'head' || places.includes('Ticket hall');
  const lines = (isLarge ? [1, 2] : [1]).map((n) =>
    toThing({
      ...{
        id: `line-${id}-${n}`,
        kindId: 'network',
        name: `Line ${n}, ${name}`,
        teamId: 'network',
        siteId: id,
      },
      ...{ dependable: 0.995, contract: 'Costa Cable, lines to the terminals, until 2028-06-30' },
      fields: {
        circuit: `C-${4_000 + id.length * 37 + n}`,
        supplier: 'Costa Cable',
        speed: isLarge ? 500 : 100,
      },
    }),
  );
  const net = toThing({
    ...{ id: `net-${id}`, kindId: 'network', name: `Network of ${name}`, teamId: 'network', siteId: id },
    dependable: 0.999,
  });
  const devices = createDevices(terminal, world);
  return {
    things: [...lines, net, ...devices],
    needs: [
      needOf(net.id, 1, ...lines.map((each) => each.id)),
      ...devices.map((each) => needOf(each.id, 1, net.id)),
      ...lines.map((each) => needOf(each.id, 1, 'core-network')),
    ],
  };
}

/** A vessel: its link, its network, its bridge. */
function createVessel(name: string, { now }: World): Needed {
  const id = name.toLowerCase();
  const on = { vessel: name };
  const things = [
    toThing({
      id: `vessel-${id}`,
      kindId: 'vessel',
      name: `MV ${name}`,
      department: 'Deck',
      teamId: 'onboard',
    }),
    toThing({
      ...{ id: `sea-${id}`, kindId: 'network', name: `Satellite link, MV ${name}`, teamId: 'network', ...on },
      ...{
        dependable: 0.97,
        fields: { supplier: 'Boreal Sky', speed: 20 },
        boughtOn: dayOf(now - 900 * DAY),
        cost: 1_450_000,
      },
    }),
    toThing({
      ...{
        id: `coast-${id}`,
        kindId: 'network',
        name: `Coast radio link, MV ${name}`,
        teamId: 'network',
        ...on,
      },
      dependable: 0.9,
    }),
    toThing({
      id: `ship-${id}`,
      kindId: 'network',
      name: `Network of MV ${name}`,
      teamId: 'network',
      ...on,
      dependable: 0.998,
    }),
  ];
  return {
    things,
    needs: [needOf(`vessel-${id}`, 1, `ship-${id}`), needOf(`ship-${id}`, 1, `sea-${id}`, `coast-${id}`)],
  };
}

const SERVERS = [
  ...[
    ['server-1', 'Server A1'] as const,
    ['server-2', 'Server A2'] as const,
    ['server-3', 'Server B1'] as const,
  ],
  ...[
    ['server-4', 'Server B2'] as const,
    ['db-1', 'Database server 1'] as const,
    ['db-2', 'Database server 2'] as const,
  ],
];
const PROGRAMS = [
  ['booking', 'Booking program', 'Own work', 0],
  ['passes', 'Season passes', 'Own work', 0],
  ['rostering', 'Roster program', 'Kestrel Planning', 220],
  ['ledger', 'Ledger', 'Folio', 60],
  ['directory', 'Sign-on', 'Own work', 1_500],
] as const;
const SERVICES = [
  ['ticketing', 'Selling tickets'],
  ['boarding', 'Boarding'],
  ['roster', 'Rosters'],
  ['invoices', 'Invoices'],
  ['mail', 'Mail and calendar'],
] as const;

/** What the programs and the services that people know by name stand on. */
const createMiddleNeeds = (terminals: string[]): ThingNeedRow[] => [
  needOf('core-network', 1, 'power'),
  ...SERVERS.map(([id]) => needOf(id, 1, 'core-network')),
  needOf('directory', 1, 'server-1', 'server-2'),
  needOf('booking', 1, 'db-1', 'db-2'),
  needOf('booking', 2, 'server-1', 'server-2', 'server-3'),
  needOf('passes', 1, 'db-1'),
  needOf('rostering', 1, 'server-4'),
  needOf('rostering', 1, 'directory'),
  needOf('ledger', 1, 'db-2'),
  needOf('ticketing', 1, 'booking'),
  needOf('ticketing', 4, ...terminals.map((id) => `net-${id}`)),
  needOf('boarding', 1, 'passes'),
  needOf('boarding', 1, 'core-network'),
  needOf('roster', 1, 'rostering'),
  needOf('invoices', 1, 'ledger'),
  needOf('invoices', 1, 'directory'),
  needOf('mail', 1, 'directory'),
  needOf('mail', 1, 'server-3', 'server-4'),
];

/** The middle of it: servers, programs, and the services that people know by name. */
function createMiddle(terminals: string[]): Needed {
  const inRoom = { siteId: 'head', place: 'Room 1.04', teamId: 'network' };
  const net = { kindId: 'network', ...inRoom };
  return {
    things: [
      toThing({ id: 'core-network', name: 'Core network, Port Alder', ...net, dependable: 0.9995 }),
      toThing({ id: 'power', name: 'Power of the server room', ...net, dependable: 0.9999 }),
      ...SERVERS.map(([id, name]) => toThing({ id, name, kindId: 'server', ...inRoom, dependable: 0.995 })),
      ...PROGRAMS.map(([id, name, supplier, seats]) =>
        toThing({
          id,
          name,
          kindId: 'program',
          teamId: 'apps',
          fields: { supplier, ...(seats > 0 && { seats }) },
          dependable: 0.998,
        }),
      ),
      ...SERVICES.map(([id, name]) =>
        toThing({ id, name, kindId: 'service', teamId: 'desk', isWatched: true }),
      ),
    ],
    needs: createMiddleNeeds(terminals),
  };
}

/** All that Solvarra Ferries keeps track of, and what hangs on what. */
export function createEstate(organisation: Organisation, random: Random, now: number): Needed {
  const world: World = { organisation, random, now };
  const terminals = organisation.sites.filter(({ id }) => !id.startsWith('yard'));
  const parts = [
    createMiddle(terminals.filter(({ id }) => id !== 'head').map(({ id }) => id)),
    ...terminals.map(({ id, name }) => createTerminal([id, name, PLACES_OF[id] ?? ['Office']], world)),
    ...VESSELS.map((name) => createVessel(name, world)),
    { things: createCarried(world), needs: [] },
  ];
  return { things: parts.flatMap(({ things }) => things), needs: parts.flatMap(({ needs }) => needs) };
}

const PLACES_OF: Record<string, string[]> = {
  ...{ alder: ['Gate 1', 'Gate 2', 'Gate 3', 'Ticket hall'], quell: ['Gate 1', 'Gate 2', 'Ticket hall'] },
  ...{ ombra: ['Gate 1', 'Gate 2', 'Gate 4'], curva: ['Gate 1'], marrow: ['Gate 1', 'Gate 2'] },
  ...{
    fenwick: ['Gate 1', 'Gate 2'],
    longa: ['Gate 1', 'Gate 2', 'Ticket hall'],
    tarn: ['Gate 1'],
    lorne: ['Gate 1'],
  },
};
