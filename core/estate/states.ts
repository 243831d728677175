/** Where a thing is in its life, in the order in which it usually goes. */
export const THING_STATES = ['ordered', 'inStore', 'inUse', 'lent', 'inRepair', 'retired', 'lost'] as const;
/** Where a thing is in its life. */
export type ThingState = (typeof THING_STATES)[number];

/** What can be done with a thing; each leads to another state. */
export const THING_ACTS = [
  ...(['arrive', 'handOver', 'install', 'lend', 'takeBack'] as const),
  ...(['sendToRepair', 'comeFromRepair', 'lose', 'find', 'retire', 'bringBack'] as const),
] as const;
/** Something that can be done with a thing. */
export type ThingAct = (typeof THING_ACTS)[number];

/** Who has a thing, and until when where it is lent (ms since the epoch). */
export type Custody = { state: ThingState; holderId: string | null; lentUntil: number | null };

/** Why an act cannot be done, with the field at fault. */
export type ActProblem = { field: 'act' | 'holderId' | 'lentUntil'; code: 'notNow' | 'missing' | 'past' };

type Rule = {
  from: readonly ThingState[];
  /** Who has it afterwards: whoever is named, nobody, or whoever has it now. */
  holder: 'named' | 'nobody' | 'same';
  to: (before: Custody) => ThingState;
};

/** In use where somebody has it, else in store. */
const backIn = ({ holderId }: Custody): ThingState => (holderId === null ? 'inStore' : 'inUse');
const always = (state: ThingState) => (): ThingState => state;
const THERE = ['ordered', 'inStore', 'inUse', 'lent', 'inRepair', 'lost'] as const;

/** From where each act may begin and where it leads. */
const RULES: Record<ThingAct, Rule> = {
  arrive: { from: ['ordered'], holder: 'nobody', to: always('inStore') },
  handOver: { from: ['ordered', 'inStore', 'inUse', 'lent'], holder: 'named', to: always('inUse') },
  install: { from: ['ordered', 'inStore'], holder: 'nobody', to: always('inUse') },
  lend: { from: ['inStore', 'lent'], holder: 'named', to: always('lent') },
  takeBack: { from: ['inUse', 'lent', 'inRepair'], holder: 'nobody', to: always('inStore') },
  sendToRepair: { from: ['inStore', 'inUse', 'lent'], holder: 'same', to: always('inRepair') },
  comeFromRepair: { from: ['inRepair'], holder: 'same', to: backIn },
  lose: { from: ['inStore', 'inUse', 'lent', 'inRepair'], holder: 'same', to: always('lost') },
  find: { from: ['lost'], holder: 'same', to: backIn },
  retire: { from: THERE, holder: 'nobody', to: always('retired') },
  bringBack: { from: ['retired'], holder: 'nobody', to: always('inStore') },
};

/** What is done with things that are given to people, and with no others. */
const OF_HANDED_OUT: readonly ThingAct[] = ['handOver', 'lend', 'takeBack', 'lose', 'find'];

/**
 * What can be done with a thing in a state.
 * @param isHandedOut whether such things are given to people
 * @example listActs('retired', true) // ['bringBack']
 */
export const listActs = (state: ThingState, isHandedOut: boolean): ThingAct[] =>
  THING_ACTS.filter(
    (act) => RULES[act].from.includes(state) && (isHandedOut || !OF_HANDED_OUT.includes(act)),
  );

/**
 * What becomes of a thing by an act.
 * @param said who gets it, and until when it is lent (ms since the epoch)
 * @returns who has it afterwards, or why it cannot be done
 */
export function actOn(
  before: Custody,
  act: ThingAct,
  { holderId, lentUntil, now }: { holderId: string | null; lentUntil: number | null; now: number },
): { after: Custody } | { problem: ActProblem } {
  const { from, holder, to } = RULES[act];
  if (!from.includes(before.state)) return { problem: { field: 'act', code: 'notNow' } };
  if (holder === 'named' && holderId === null) return { problem: { field: 'holderId', code: 'missing' } };
  if (act === 'lend') {
    if (lentUntil === null) return { problem: { field: 'lentUntil', code: 'missing' } };
    if (lentUntil <= now) return { problem: { field: 'lentUntil', code: 'past' } };
  }
  const holders = { named: holderId, nobody: null, same: before.holderId };
  const keepsUntil = holder === 'same' && before.holderId !== null;
  return {
    after: {
      state: to(before),
      holderId: holders[holder],
      lentUntil: act === 'lend' ? lentUntil : keepsUntil ? before.lentUntil : null,
    },
  };
}

/** Whether a thing is there to work: what is in repair, retired or lost does not, and takes down what hangs on it. */
export const works = (state: ThingState): boolean =>
  state !== 'inRepair' && state !== 'retired' && state !== 'lost';
