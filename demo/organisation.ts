import { ROUTED_BY_HAND } from '../core/routing';
import { WAITS, type OutOfHours } from '../core/hours';
import type { GroupRow, MemberRow, PersonRow, SiteRow, TeamRow } from '../server/people/model';
import type { Random } from './random';

const LISBON = 'Europe/Lisbon';
const AZORES = 'Atlantic/Azores';

type Place = [id: string, name: string, zone: string, calendarId: string, places: string[]];
const PLACES: Place[] = [
  ['head', 'Head office, Port Alder', LISBON, 'office', ['Room 1.04', 'Room 2.11', 'Room 3.02', 'Reception']],
  ['alder', 'Port Alder', LISBON, 'terminals', ['Gate 1', 'Gate 2', 'Gate 3', 'Ticket hall']],
  ['quell', 'Quell Harbour', LISBON, 'terminals', ['Gate 1', 'Gate 2', 'Ticket hall']],
  ['ombra', 'Santa Ombra', LISBON, 'terminals', ['Gate 1', 'Gate 2', 'Gate 4', 'Car lanes']],
  ['curva', 'Ilha Curva', AZORES, 'terminals-west', ['Gate 1', 'Office', 'Car lanes']],
  ['marrow', 'Marrow Point', LISBON, 'terminals', ['Gate 1', 'Gate 2']],
  ['fenwick', 'Fenwick Sound', LISBON, 'terminals', ['Gate 1', 'Gate 2', 'Crew room']],
  ['longa', 'Baía Longa', AZORES, 'terminals-west', ['Gate 1', 'Gate 2', 'Ticket hall']],
  ['tarn', 'Tarn Quay', LISBON, 'terminals', ['Gate 1', 'Workshop door']],
  ['lorne', 'Cape Lorne', AZORES, 'terminals-west', ['Gate 1', 'Radio mast']],
  ['yard-1', 'Dockyard 1, Tarn Quay', LISBON, 'dockyard', ['Hall A', 'Paint shop', 'Gatehouse']],
  ['yard-2', 'Dockyard 2, Quell Harbour', LISBON, 'dockyard', ['Hall B', 'Slipway', 'Gatehouse']],
];
export const VESSELS = [
  'Gannet',
  'Petrel',
  'Shearwater',
  'Tern',
  'Kittiwake',
  'Cormorant',
  'Puffin',
  'Skua',
  'Fulmar',
  'Curlew',
  'Avocet',
];

const FIRST = [
  'Alba',
  'Amaro',
  'Anselm',
  'Aurea',
  'Benno',
  'Brites',
  'Caio',
  'Celsa',
  'Dario',
  'Delfina',
  'Edda',
  'Elmo',
  'Fausto',
  'Filipa',
  'Gaspar',
  'Greta',
  'Heitor',
  'Ilda',
  'Iven',
  'Jacinta',
  'Jorun',
  'Kasper',
  'Leonor',
  'Lino',
  'Mafalda',
  'Matias',
  'Nelo',
  'Noor',
  'Odete',
  'Osvald',
  'Paloma',
  'Quim',
  'Ramiro',
  'Renske',
  'Saul',
  'Sigrid',
  'Telmo',
  'Tilda',
  'Ulisses',
  'Vera',
  'Wim',
  'Zélia',
];
const LAST = [
  'Abreu',
  'Alvor',
  'Bakke',
  'Barro',
  'Calado',
  'Corvo',
  'Dantas',
  'Ekdal',
  'Falcato',
  'Farrow',
  'Garrido',
  'Halden',
  'Iglésias',
  'Junot',
  'Kroon',
  'Lagoa',
  'Lindqvist',
  'Madruga',
  'Marlow',
  'Noronha',
  'Orvalho',
  'Penedo',
  'Quaresma',
  'Rasmus',
  'Salgado',
  'Serrão',
  'Thorne',
  'Ulmar',
  'Valadão',
  'Wexel',
  'Ximenes',
  'Zarco',
];

const TEAMS: [id: string, en: string, pt: string, calendarId: string, isConfidential?: true][] = [
  ['desk', 'Service desk', 'Central de serviços', 'desk'],
  ['onboard', 'Onboard systems', 'Sistemas de bordo', 'terminals'],
  ['network', 'Network and radio', 'Rede e rádio', 'ships'],
  ['apps', 'Business applications', 'Aplicações de negócio', 'office'],
  ['people', 'People services', 'Serviços de pessoal', 'office', true],
  ['facilities', 'Terminal facilities', 'Instalações dos terminais', 'office'],
  ['finance', 'Finance services', 'Serviços financeiros', 'office'],
  ['stores', 'Fleet stores', 'Armazéns da frota', 'office'],
];
/** Urgent matters of the fleet are looked after round the clock; People services say when they are back. */
const OUT_OF_HOURS: Record<string, OutOfHours> = {
  onboard: {
    goesTo: 'network',
    priorities: ['P1'],
    words: {
      en: 'Onboard systems are off now and open {opens}. Network and radio look after what stops a gate.',
      pt: 'Os Sistemas de bordo estão fechados e abrem {opens}. A Rede e rádio trata do que parar um portão.',
    },
  },
  people: {
    goesTo: null,
    priorities: [],
    words: {
      en: 'People services read this {opens}. Until then nobody does.',
      pt: 'Os Serviços de pessoal leem isto {opens}. Até lá ninguém o lê.',
    },
  },
};
/** The addresses under which mail reaches teams, and what such mail asks for. */
const MAILBOXES: Record<string, Pick<TeamRow, 'mailbox' | 'mailServiceId'>> = Object.fromEntries(
  (
    [
      ['desk', 'helpdesk', 'other'],
      ['onboard', 'onboard', 'gate-broken'],
      ['network', 'network', 'wifi'],
      ['apps', 'applications', 'roster'],
      ['people', 'people', 'in-confidence'],
      ['facilities', 'facilities', 'building'],
      ['finance', 'finance', 'invoice'],
      ['stores', 'stores', 'spares'],
    ] as const
  ).map(([id, mailbox, mailServiceId]) => [id, { mailbox, mailServiceId }]),
);
/** How far things are, as the stores and the facilities say it. */
const PROGRESS: Record<string, TeamRow['progressLabels']> = {
  stores: [
    { id: 'ordered', name: { en: 'ordered', pt: 'encomendado' }, isFinished: false },
    { id: 'packed', name: { en: 'packed', pt: 'embalado' }, isFinished: false },
    { id: 'delivered', name: { en: 'delivered', pt: 'entregue' }, isFinished: true },
    { id: 'lost', name: { en: 'lost', pt: 'perdido' }, isFinished: false },
  ],
  facilities: [
    { id: 'seen', name: { en: 'looked at', pt: 'visto' }, isFinished: false },
    { id: 'parts', name: { en: 'parts ordered', pt: 'peças encomendadas' }, isFinished: false },
    { id: 'mended', name: { en: 'mended', pt: 'reparado' }, isFinished: true },
  ],
};
const GROUPS: GroupRow[] = [
  { id: 'onboard-gates', teamId: 'onboard', name: 'Gates and kiosks' },
  { id: 'onboard-bridge', teamId: 'onboard', name: 'Bridge and decks' },
  { id: 'apps-roster', teamId: 'apps', name: 'Roster' },
  { id: 'apps-access', teamId: 'apps', name: 'Access' },
];

type Named = [id: string, name: string, title: string, siteId: string, more?: Partial<PersonRow>];
/** Those who are met by name: askers, deciders, and the 26 of the teams. */
const ASKERS: Named[] = [
  [
    'tomas',
    'Tomás Veiga',
    'Terminal lead',
    'alder',
    { managerId: 'ana', place: 'Ticket hall', device: 'Tablet T-0418' },
  ],
  ['ines', 'Inês Cabral', 'Terminal agent', 'ombra', { managerId: 'graca', place: 'Gate 4' }],
  [
    'lena',
    'Lena Storm',
    'Chief mate, MV Petrel',
    'fenwick',
    { managerId: 'aro', vessel: 'Petrel', device: 'Bridge tablet B-07' },
  ],
  ['joel', 'Joel Brandt', 'Deckhand, MV Gannet', 'lorne', { managerId: 'aro', vessel: 'Gannet' }],
  ['rosa', 'Rosa Melo', 'Office clerk', 'curva', { managerId: 'ana', place: 'Office' }],
  ['yves', 'Yves Armand', 'Dockyard foreman', 'yard-1', { managerId: 'ana', place: 'Gatehouse' }],
  ['mina', 'Mina Farrow', 'Lost property', 'quell', { managerId: 'graca', place: 'Ticket hall' }],
];
const DECIDERS: Named[] = [
  [
    'ana',
    'Ana Lobo',
    'Head of terminals',
    'head',
    { managerId: 'helge', goesFirst: true, mayAskForOthers: true },
  ],
  ['graca', 'Graça Pinheiro', 'Regional manager', 'ombra', { managerId: 'ana' }],
  [
    'aro',
    'Capt. Aro Lund',
    'Captain, MV Gannet',
    'lorne',
    { managerId: 'ana', vessel: 'Gannet', goesFirst: true, mayAskForOthers: true },
  ],
  ['helge', 'Helge Strand', 'Chief operating officer', 'head', { goesFirst: true }],
];
/** Who heads a site, where that is not the head of terminals. */
const HEADS: Record<string, string> = { ombra: 'graca', quell: 'graca', fenwick: 'olav', lorne: 'aro' };
const LATER: Named[] = [
  ['olav', 'Olav Lind', 'Base manager, Fenwick Sound', 'fenwick', { managerId: 'ana' }],
  ['iben', 'Iben Sund', 'Crewing lead', 'head', { managerId: 'helge' }],
];
type Role = MemberRow['role'];
const AGENTS: [team: string, id: string, name: string, role: Role, groupId: string | null][] = [
  ['desk', 'marta', 'Marta Reis', 'lead', null],
  ['desk', 'bia', 'Bia Rocha', 'agent', null],
  ['desk', 'piet', 'Piet Okker', 'agent', null],
  ['desk', 'nuno', 'Nuno Sarmento', 'agent', null],
  ['desk', 'elin', 'Elin Dahl', 'agent', null],
  ['desk', 'carla', 'Carla Tojal', 'agent', null],
  ['onboard', 'rui', 'Rui Bastos', 'lead', 'onboard-gates'],
  ['onboard', 'hanna', 'Hanna Vik', 'teamAdministrator', 'onboard-gates'],
  ['onboard', 'duarte', 'Duarte Mós', 'agent', 'onboard-bridge'],
  ['onboard', 'ivo', 'Ivo Ramires', 'agent', 'onboard-bridge'],
  ['network', 'sten', 'Sten Moberg', 'lead', null],
  ['network', 'alda', 'Alda Queirós', 'agent', null],
  ['network', 'tiago', 'Tiago Lemos', 'agent', null],
  ['apps', 'vasco', 'Vasco Lourinho', 'lead', 'apps-access'],
  ['apps', 'petra', 'Petra Holm', 'agent', 'apps-roster'],
  ['apps', 'luis', 'Luís Amieiro', 'agent', 'apps-access'],
  ['people', 'sofia', 'Sofia Nunes', 'lead', null],
  ['people', 'orla', 'Orla Kjær', 'agent', null],
  ['people', 'bento', 'Bento Vilar', 'agent', null],
  ['facilities', 'gil', 'Gil Andrade', 'lead', null],
  ['facilities', 'runa', 'Runa Stav', 'agent', null],
  ['finance', 'clara', 'Clara Teixo', 'lead', null],
  ['finance', 'emil', 'Emil Porto', 'agent', null],
  ['stores', 'jonas', 'Jonas Peck', 'lead', null],
  ['stores', 'dina', 'Dina Rosado', 'agent', null],
  ['stores', 'artur', 'Artur Feio', 'agent', null],
];
const ADMINISTRATOR: Named = [
  'helder',
  'Helder Quist',
  'Service manager',
  'head',
  { isAdministrator: true, managerId: 'helge' },
];

/** Those one can sign in as, in the order in which the page shows them. */
export const SIGN_IN_PEOPLE = [
  'tomas',
  'ines',
  'lena',
  'joel',
  'ana',
  'aro',
  'bia',
  'marta',
  'rui',
  'sten',
  'vasco',
  'sofia',
  'gil',
  'jonas',
  'helder',
];
const STAFF = 1_400;

export type Organisation = {
  sites: SiteRow[];
  people: PersonRow[];
  teams: TeamRow[];
  groups: GroupRow[];
  members: MemberRow[];
};

/** The part of the company that someone works in, by what they do. */
function departmentOf(title: string, siteId: string): string {
  if (/Deckhand|mate|Mate|Captain/.test(title)) return 'Deck';
  if (/^Engineer/.test(title)) return 'Engine';
  if (/^Cook/.test(title)) return 'Catering';
  if (siteId === 'head') return 'Head office';
  return siteId.startsWith('yard') ? 'Dockyards' : 'Terminals';
}

function emailOf(id: string): string {
  return `${id}@solvarra.example`;
}

function personOf([id, name, title, siteId, more]: Named, phone: string): PersonRow {
  return {
    id,
    name,
    title,
    siteId,
    phone,
    email: emailOf(id),
    department: departmentOf(title, siteId),
    place: null,
    vessel: null,
    device: null,
    costCentre: `CC-${siteId.toUpperCase()}`,
    managerId: null,
    language: 'en',
    isAdministrator: false,
    mayAskForOthers: false,
    goesFirst: false,
    passwordHash: null,
    ...{ wantsMail: true, presence: 'available' as const },
    leftAt: null,
    version: 1,
    ...more,
  };
}

/** Those whom the story does not name. */
function createMany(random: Random, { count, phone }: { count: number; phone(): string }): PersonRow[] {
  const managers: Record<string, string> = { ombra: 'graca', quell: 'graca', lorne: 'aro' };
  const titles = [
    'Terminal agent',
    'Deckhand',
    'Ticket office',
    'Car marshal',
    'Engineer',
    'Cook',
    'Mate',
    'Electrician',
    'Planner',
    'Clerk',
  ];
  return Array.from({ length: count }, (_, i) => {
    const [siteId, , , , places] = random.pick(PLACES);
    const title = random.pick(titles);
    const isCrew = ['Deckhand', 'Cook', 'Mate', 'Engineer'].includes(title);
    return personOf(
      [
        `p${String(i + 1).padStart(4, '0')}`,
        `${random.pick(FIRST)} ${random.pick(LAST)}`,
        title,
        siteId,
        {
          managerId: managers[siteId] ?? 'ana',
          place: random.pick(places),
          vessel: isCrew ? random.pick(VESSELS) : null,
          language: random.chance(0.4) ? 'pt' : 'en',
        },
      ],
      phone(),
    );
  });
}

/** About 1,400 employees: the named ones and the many, each with a manager, a site and what they work with. */
export function createOrganisation(random: Random): Organisation {
  const phone = (): string => `+351 000 ${Math.floor(random.between(100_000, 999_999))}`;
  const leadOf = new Map(AGENTS.filter(([, , , role]) => role === 'lead').map(([team, id]) => [team, id]));
  const named = [...ASKERS, ...DECIDERS, ADMINISTRATOR].map((person) => personOf(person, phone()));
  const agents = AGENTS.map(([team, id, name, role]) => {
    const [, teamName] = TEAMS.find(([teamId]) => teamId === team)!;
    const managerId = role === 'lead' ? 'helder' : leadOf.get(team)!;
    return personOf(
      [
        id,
        name,
        role === 'lead' ? `Lead, ${teamName}` : teamName,
        'head',
        { managerId, place: random.pick(PLACES[0]![4]) },
      ],
      phone(),
    );
  });
  const many = createMany(random, { count: STAFF - named.length - agents.length, phone });
  return {
    sites: PLACES.map(([id, name, timeZone, calendarId]) => ({
      ...{ id, name, timeZone, calendarId },
      headId: HEADS[id] ?? 'ana',
    })),
    people: [...named, ...agents, ...many, ...LATER.map((person) => personOf(person, '+351 000 410022'))],
    teams: TEAMS.map(([id, en, pt, calendarId, isConfidential = false]) => ({
      id,
      name: { en, pt },
      calendarId,
      isConfidential,
      outOfHours: OUT_OF_HOURS[id] ?? WAITS,
      ...MAILBOXES[id]!,
      progressLabels: PROGRESS[id] ?? [],
      ...{ orderWeights: null, decidesInChat: true, answersMail: id === 'desk' },
      // The first line moves on what came to the wrong team.
      givenOnBy: id === 'onboard' || id === 'network' ? ['desk'] : [],
      routing: id === 'network' ? { ...ROUTED_BY_HAND, way: 'leastLoaded' as const } : null,
      version: 1,
    })),
    groups: GROUPS,
    members: AGENTS.map(([teamId, personId, , role, groupId]) => {
      // A lead has less time for tickets of their own.
      return { teamId, personId, role, groupId, capacity: role === 'lead' ? 8 : 12, lastGivenAt: null };
    }),
  };
}
