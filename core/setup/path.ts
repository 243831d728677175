/** What is set up, in the order in which it is done: each needs only what stands before it. */
export const SETUP_PARTS = [
  'calendars',
  'sites',
  'people',
  'teams',
  'services',
  'targets',
  'routing',
  'procedures',
  'things',
  'mail',
  'chat',
  'lines',
  'knowledge',
  'assistant',
  'rules',
  'programs',
  'records',
] as const;
/** One of what is set up. */
export type SetupPart = (typeof SETUP_PARTS)[number];

/** What is counted of what is set up. */
export const SETUP_COUNTS = [
  ...(['calendars', 'sites', 'people', 'peopleWithoutWayIn', 'administrators'] as const),
  ...(['teams', 'teamsWithoutAgents', 'teamsWithoutLead', 'teamsByHand', 'teamsGivenOut'] as const),
  ...([
    'services',
    'servicesOff',
    'drafts',
    'targets',
    'targetsOff',
    'procedures',
    'kinds',
    'things',
  ] as const),
  ...(['mailSent', 'mailFailed', 'mailboxes', 'rooms', 'roomsLost', 'lines', 'linesOff'] as const),
  ...(['articles', 'articleDrafts', 'matters', 'mattersOff', 'rules', 'rulesFailing'] as const),
  ...(['programs', 'webhooks', 'webhooksFailing', 'seals'] as const),
] as const;
/** One of what is counted. */
export type SetupCount = (typeof SETUP_COUNTS)[number];
/** How much there is of each. */
export type SetupFacts = Record<SetupCount, number>;

/** What stands in the way of a part, or is worth a look. */
export type SetupLack = Exclude<
  SetupCount,
  'calendars' | 'sites' | 'people' | 'administrators' | 'teams' | 'services' | 'targets' | 'teamsGivenOut'
>;

type Of = {
  /** Without any of this the part is not begun. */
  first: SetupCount;
  /** What is told of it beside the first. */
  told?: SetupCount[];
  /** What should be none. */
  lacks?: SetupLack[];
  /** Parts without which it cannot be begun. */
  needs?: SetupPart[];
  /** Work is answered without it. */
  canWait?: boolean;
};

const PARTS: Record<SetupPart, Of> = {
  calendars: { first: 'calendars' },
  sites: { first: 'sites', needs: ['calendars'] },
  people: { first: 'people', told: ['administrators'], lacks: ['peopleWithoutWayIn'], needs: ['sites'] },
  teams: {
    first: 'teams',
    lacks: ['teamsWithoutAgents', 'teamsWithoutLead'],
    needs: ['calendars', 'people'],
  },
  services: { first: 'services', told: ['drafts'], lacks: ['servicesOff'], needs: ['teams'] },
  targets: { first: 'targets', lacks: ['targetsOff'], needs: ['calendars'] },
  routing: { first: 'teamsGivenOut', told: ['teamsByHand'], needs: ['teams'], canWait: true },
  procedures: { first: 'procedures', needs: ['teams'], canWait: true },
  things: { first: 'kinds', told: ['things'], needs: ['sites', 'teams'], canWait: true },
  mail: { first: 'mailSent', told: ['mailboxes'], lacks: ['mailFailed'], canWait: true },
  chat: { first: 'rooms', lacks: ['roomsLost'], needs: ['teams'], canWait: true },
  lines: { first: 'lines', lacks: ['linesOff'], needs: ['teams'], canWait: true },
  knowledge: { first: 'articles', told: ['articleDrafts'], needs: ['teams'], canWait: true },
  assistant: { first: 'matters', lacks: ['mattersOff'], needs: ['services'], canWait: true },
  rules: { first: 'rules', lacks: ['rulesFailing'], needs: ['teams'], canWait: true },
  programs: {
    first: 'programs',
    told: ['webhooks'],
    lacks: ['webhooksFailing'],
    needs: ['teams'],
    canWait: true,
  },
  // The first seal is made in the first night, by itself.
  records: { first: 'seals', canWait: true },
};

/**
 * How far a part is:
 * - waits: something else must be there first
 * - notBegun, ready
 * - attention: it is there, and something about it is worth a look
 */
export type SetupState = 'waits' | 'notBegun' | 'attention' | 'ready';

/** A part as the path shows it. */
export type SetupStep = {
  part: SetupPart;
  state: SetupState;
  /** What must be there first. */
  waitsFor: SetupPart[];
  canWait: boolean;
  there: { count: SetupCount; number: number }[];
  lacks: { count: SetupLack; number: number }[];
};

/**
 * The path from nothing to all that is set up, in its order.
 * @example listSetup({ …, calendars: 1, sites: 0 })[1] // { part: 'sites', state: 'notBegun', … }
 */
export function listSetup(facts: SetupFacts): SetupStep[] {
  const isThere = (part: SetupPart): boolean => facts[PARTS[part].first] > 0;
  return SETUP_PARTS.map((part) => {
    const { first, told = [], lacks = [], needs = [], canWait = false } = PARTS[part];
    const waitsFor = isThere(part) ? [] : needs.filter((other) => !isThere(other));
    const lacking = isThere(part) ? lacks.filter((count) => facts[count] > 0) : [];
    const state = isThere(part)
      ? lacking.length > 0
        ? 'attention'
        : 'ready'
      : waitsFor.length > 0
        ? 'waits'
        : 'notBegun';
    return {
      ...{ part, state, waitsFor, canWait },
      there: [first, ...told].map((count) => ({ count, number: facts[count] })),
      lacks: lacking.map((count) => ({ count, number: facts[count] })),
    };
  });
}

/** What is done next: the first that is not begun and cannot wait; null: nothing has to be. */
export function nextOf(steps: SetupStep[]): SetupPart | null {
  return steps.find(({ state, canWait }) => state === 'notBegun' && !canWait)?.part ?? null;
}
