import type { Matter } from './matters';

type Step = {
  do: 'approve' | 'take' | 'answer' | 'reply' | 'note' | 'ask' | 'finish';
  by?: string;
  ago: number;
  text?: string;
};

/** A ticket of the demo's today, written out: what those who look around first should find. */
export type TodayTicket = {
  serviceId: string;
  /** The matter it is like, by the beginning of its title. */
  like?: string;
  title: string;
  requesterId: string;
  minutesAgo: number;
  /** Drawn by itself: it was added to a demo that stays as it was. */
  isApart?: true;
  judged?: Partial<Pick<Matter, 'impact' | 'urgency' | 'what'>>;
  steps: Step[];
};

export const TODAY: TodayTicket[] = [
  {
    serviceId: 'gate-broken',
    title: 'Gate scanners reject season passes',
    requesterId: 'ines',
    minutesAgo: 276,
    judged: {
      impact: 'fleet',
      urgency: 'stopsWork',
      what: 'All season passes sold this month show red at gates 2 and 4. Day tickets work. We let people through by hand.',
    },
    steps: [
      { do: 'take', by: 'rui', ago: 271 },
      {
        do: 'answer',
        by: 'rui',
        ago: 268,
        text: 'We see it at two terminals. Please let season passes through by hand until we write again.',
      },
      {
        do: 'note',
        by: 'hanna',
        ago: 240,
        text: 'The new pass list has a second issuer. The gates only trust the first one.',
      },
      { do: 'reply', ago: 95, text: 'Still the same here. The queue is out to the car lanes.' },
    ],
  },
  {
    serviceId: 'sea-link',
    title: 'Satellite link drops off Cape Lorne',
    requesterId: 'aro',
    minutesAgo: 150,
    judged: {
      impact: 'site',
      urgency: 'stopsWork',
      what: 'Gone for six minutes at every pass of the cape since this morning. The manifest cannot be sent.',
    },
    steps: [
      { do: 'take', by: 'sten', ago: 143 },
      {
        do: 'answer',
        by: 'sten',
        ago: 139,
        text: 'We are watching the link with you. Please send the manifest before the cape for now.',
      },
    ],
  },
  // More than this hour usually brings: a surge.
  {
    serviceId: 'sea-link',
    title: 'Link gone since the cape',
    requesterId: 'p0016',
    minutesAgo: 41,
    judged: { what: 'Nothing since 07:50 ship time. The bridge telephone is dead too.' },
    isApart: true,
    steps: [],
  },
  {
    serviceId: 'sea-link',
    title: 'No link on the bridge',
    requesterId: 'p0030',
    minutesAgo: 33,
    judged: { what: 'Dropped as we came round Cape Lorne, as yesterday on the Gannet.' },
    isApart: true,
    steps: [],
  },
  {
    serviceId: 'sea-link',
    title: 'Satellite link lost twice in an hour',
    requesterId: 'p0046',
    minutesAgo: 22,
    judged: { what: 'It comes back for a minute and goes again.' },
    isApart: true,
    steps: [],
  },
  {
    serviceId: 'sea-link',
    title: 'The manifest will not go out',
    requesterId: 'p0029',
    minutesAgo: 12,
    judged: { what: 'No link; we berth in an hour and the terminal has no list yet.' },
    isApart: true,
    steps: [],
  },
  {
    serviceId: 'sea-link',
    title: 'Link down again off Cape Lorne',
    requesterId: 'p0022',
    minutesAgo: 5,
    judged: { what: 'Third time this week at the same place.' },
    isApart: true,
    steps: [],
  },
  {
    serviceId: 'kiosk',
    title: 'Kiosk 3 frozen on payment',
    requesterId: 'tomas',
    minutesAgo: 72,
    like: 'Kiosk {n} frozen',
    judged: {
      impact: 'site',
      urgency: 'stopsWork',
      what: 'Kiosk 3 stops at “present your card”. Restarted it twice, same again. Queue out to the car park, first day of the holidays.',
    },
    steps: [
      { do: 'take', by: 'rui', ago: 70 },
      {
        do: 'answer',
        by: 'rui',
        ago: 66,
        text: 'On it. Please send people to kiosks 1 and 2 for now. Does the reader’s small screen show a number?',
      },
      {
        do: 'note',
        by: 'rui',
        ago: 53,
        text: 'Same firmware as the gate scanners at Santa Ombra. One cause? Asked Hanna to compare.',
      },
      { do: 'reply', ago: 44, text: 'It says E-71.' },
    ],
  },
  {
    serviceId: 'bridge-tablet',
    title: 'Bridge tablet for MV Petrel',
    requesterId: 'lena',
    minutesAgo: 1900,
    steps: [
      { do: 'approve', ago: 1700 },
      { do: 'take', by: 'rui', ago: 420 },
      { do: 'ask', by: 'rui', ago: 400, text: 'Which mount do you have, the short or the long one?' },
      { do: 'reply', ago: 120, text: 'The long one.' },
    ],
  },
  {
    serviceId: 'gate-scanner',
    title: 'Hand scanner for gate 2',
    requesterId: 'tomas',
    minutesAgo: 40,
    steps: [],
  },
  {
    serviceId: 'gate-scanner',
    title: 'Two scanners for the car lanes',
    requesterId: 'rosa',
    minutesAgo: 190,
    steps: [],
  },
  {
    serviceId: 'new-starter',
    title: 'New starter: Sara Pinto, terminal agent',
    requesterId: 'tomas',
    minutesAgo: 2900,
    steps: [
      { do: 'approve', ago: 2600 },
      { do: 'take', by: 'luis', ago: 1500 },
      { do: 'ask', by: 'luis', ago: 1400, text: 'Which terminal will be her base?' },
    ],
  },
  {
    serviceId: 'printing',
    title: 'Cannot print boarding lists',
    requesterId: 'rosa',
    minutesAgo: 66,
    judged: { impact: 'team', urgency: 'stopsWork' },
    steps: [],
  },
  {
    serviceId: 'building',
    title: 'Door reader dead at the dockyard',
    requesterId: 'yves',
    minutesAgo: 55,
    like: 'Door reader',
    steps: [],
  },
  {
    serviceId: 'roster',
    title: 'Roster entry wrong, Saturday',
    requesterId: 'joel',
    minutesAgo: 260,
    steps: [
      { do: 'take', by: 'petra', ago: 230 },
      { do: 'ask', by: 'petra', ago: 210, text: 'Who agreed the swap with you?' },
      { do: 'reply', ago: 70, text: 'The chief mate, by radio on Sunday.' },
    ],
  },
  {
    serviceId: 'kiosk',
    title: 'Kiosk 1 prints half tickets',
    requesterId: 'tomas',
    minutesAgo: 3200,
    like: 'Kiosk {n} out',
    steps: [
      { do: 'take', by: 'hanna', ago: 3100 },
      {
        do: 'answer',
        by: 'hanna',
        ago: 3080,
        text: 'Please leave it switched off; we bring a new print head.',
      },
      {
        do: 'finish',
        by: 'hanna',
        ago: 300,
        text: 'Print head changed, twenty tickets printed and checked.',
      },
    ],
  },
];
