import { checkKnown, checkPlanned, checkWindows, Faults } from './check';
import { Effects, frozenBy, overlapOf } from './clashes';
import { Network } from './network';
import type { Freeze, Need, Work } from './types';

/** The work that wants a time: how long it takes, and within which bounds, in ms. */
export type SlotRequest = {
  work: Omit<Work, 'from' | 'to'>;
  duration: number;
  notBefore: number;
  notAfter: number;
};

type Stretch = { from: number; to: number };

/** Stretches as few as possible, in order: those that touch or overlap are one. */
export function joined(stretches: Stretch[]): Stretch[] {
  const all: Stretch[] = [];
  for (const { from, to } of [...stretches].sort((a, b) => a.from - b.from)) {
    const last = all.at(-1);
    if (last && from <= last.to) last.to = Math.max(last.to, to);
    else all.push({ from, to });
  }
  return all;
}

/** When a work must not be going on: at one thing with another, in a freeze, or taking something down together. */
function blockedFor(
  effects: Effects,
  asked: number,
  { works, freezes }: { works: Work[]; freezes: Freeze[] },
): Stretch[] {
  const blocked: Stretch[] = [];
  const [down, takesOut] = [effects.down[asked]!, effects.takesOut[asked]!];
  const always = { id: '', takesOut: [], from: -Infinity, to: Infinity };
  for (const freeze of freezes)
    if (frozenBy(freeze, always, { down, takesOut, effects })) blocked.push(freeze);
  works.forEach((work, i) => {
    if ([...effects.takesOut[i]!].some((place) => takesOut.has(place))) blocked.push(work);
  });
  // The one asked for stands last and may be at any time; the others are where they are.
  const othersOf = (at: number[]): Stretch | null =>
    overlapOf(at.filter((i) => i !== asked).map((i) => works[i]!));
  effects.findTogether(
    (at) => at.length === 1 || othersOf(at) !== null,
    (at) => {
      if (at.includes(asked)) blocked.push(othersOf(at)!);
    },
  );
  return blocked;
}

/**
 * The earliest start within the bounds so that the work lies in one window and is in no clash but that it takes
 * something down alone; null where there is none. A work of the same id is its old place and is left out.
 * @throws BadEstate
 */
export function findSlot(
  { work, duration, notBefore, notAfter }: SlotRequest,
  windows: { from: number; to: number }[],
  things: string[],
  needs: Need[],
  watched: string[],
  works: Work[],
  freezes: Freeze[],
): number | null {
  const faults = new Faults();
  const network = new Network(things, needs, faults);
  checkKnown(network, watched, faults);
  checkPlanned(network, { works, freezes }, faults);
  checkKnown(network, work.takesOut, faults);
  checkWindows(windows, faults);
  if (!(duration > 0)) faults.add('empty', work.id);
  faults.throwIfAny();
  const others = works.filter(({ id }) => id !== work.id);
  const effects = new Effects(network, { watched, works: [...others, work] });
  const blocked = joined(blockedFor(effects, others.length, { works: others, freezes }));
  for (const window of joined(windows)) {
    let start = Math.max(window.from, notBefore);
    const end = Math.min(window.to, notAfter);
    for (const { from, to } of blocked) if (to > start && from < start + duration) start = to;
    if (start + duration <= end) return start;
  }
  return null;
}
