import {
  indexNeeds,
  standings,
  works,
  type Need,
  type Standing,
  type ThingState,
  type Walked,
} from '../../core/estate';
import type { Database } from '../database/database';
import type { Listo } from '../listo';

type Thing = { state: ThingState; kindId: string };
type NeedRow = {
  id: string;
  thingId: string;
  atLeast: number | string;
  members: string[] | string;
  isGone: number;
};

/** All things with what they need, as they stand. */
export type Network = Walked & {
  things: Map<string, Thing>;
  /** How those stand that do not stand whole. */
  base: Map<string, 'weakened' | 'down'>;
  isFailed(id: string): boolean;
};

/** What a process remembers of the estate, and up to which instant of the database it has read. */
type Memory = {
  things: Map<string, Thing>;
  needs: Map<string, Need>;
  readUpTo: number;
  network: Network | null;
};
const kept = new WeakMap<Database, { memory: Memory; reading: Promise<Network> | null }>();

/** A transaction may be seen so much later than it touched its rows (s). */
const OVERLAP_S = 30;

function toNetwork({ things, needs }: Memory): Network {
  // What names a thing that has not been read yet is read with it the next time.
  const known = [...needs.values()].filter(
    ({ thing, of }) => things.has(thing) && of.every((id) => things.has(id)),
  );
  const isFailed = (id: string): boolean => !works(things.get(id)?.state ?? 'inUse');
  const ids = [...things.keys()];
  const base = new Map<string, 'weakened' | 'down'>();
  for (const [id, { standing }] of standings(ids, known, ids.filter(isFailed)))
    if (standing !== 'up') base.set(id, standing);
  return { things, base, isFailed, needs: known, index: indexNeeds(known) };
}

/** Reads what was touched since it was last asked. @returns whether anything is otherwise than it was */
async function catchUp({ db }: Listo, memory: Memory): Promise<boolean> {
  const since = { since: Math.max(0, memory.readUpTo - OVERLAP_S) };
  const [clock] = await db.select<{ now: number | string }>('SELECT UNIX_TIMESTAMP(NOW(3)) AS now');
  // Needs first: what they name is there by the time that things are read.
  const needs = await db.select<NeedRow>(
    'SELECT id, thingId, atLeast, members, isGone FROM thing_needs WHERE touchedAt >= FROM_UNIXTIME(:since)',
    since,
  );
  const things = await db.select<Thing & { id: string }>(
    'SELECT id, state, kindId FROM things WHERE touchedAt >= FROM_UNIXTIME(:since)',
    since,
  );
  let isOtherwise = false;
  for (const { id, state, kindId } of things) {
    const before = memory.things.get(id);
    if (before?.state === state && before.kindId === kindId) continue;
    memory.things.set(id, { state, kindId });
    isOtherwise = true;
  }
  for (const { id, thingId, atLeast, members, isGone } of needs) {
    if (isGone ? !memory.needs.has(id) : memory.needs.has(id)) continue;
    isOtherwise = true;
    const of = typeof members === 'string' ? (JSON.parse(members) as string[]) : members;
    if (isGone) memory.needs.delete(id);
    else memory.needs.set(id, { thing: thingId, atLeast: Number(atLeast), of });
  }
  memory.readUpTo = Number(clock!.now);
  return isOtherwise;
}

async function read(listo: Listo, memory: Memory): Promise<Network> {
  if ((await catchUp(listo, memory)) || !memory.network) memory.network = toNetwork(memory);
  return memory.network;
}

/**
 * All things with what they need. Each process remembers them and reads what was touched since it was last asked; the
 * standing of all is reckoned anew only when a state or a need has changed.
 */
export function readNetwork(listo: Listo): Promise<Network> {
  const state = kept.get(listo.db) ?? {
    memory: { things: new Map(), needs: new Map(), readUpTo: 0, network: null },
    reading: null,
  };
  kept.set(listo.db, state);
  // Whoever asks while it is read would miss what was committed just now: they read after it.
  const reading = (state.reading ?? Promise.resolve(null)).then(
    () => read(listo, state.memory),
    () => read(listo, state.memory),
  );
  state.reading = reading;
  return reading;
}

/** How a thing stands. */
export const standingOf = ({ base }: Network, id: string): Standing => base.get(id) ?? 'up';
