import { DirectedGraph } from 'graphology';
import { bfsFromNode } from 'graphology-traversal';
import { findClashes, findSlot, loneFailures, standings, type Need, type Work } from '../core/estate';
import { median, report } from './report';

const RUNS = 7;
const HOUR = 3_600_000;

/** A fixed sequence of numbers from 0 to 1, so that every run measures the same. */
export function sequence(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 1_103_515_245 + 12_345) & 0x7fffffff) / 0x7fffffff;
}

/** Things that need three others a little further down; half of the needs are met by one of them. */
export function createEstate(count: number): { things: string[]; needs: Need[] } {
  const next = sequence(1);
  const things = Array.from({ length: count }, (_, i) => `t${i}`);
  const needs = Array.from({ length: count }, () => {
    const at = Math.floor(next() * (count - 10));
    const of = Array.from(
      { length: 3 },
      () => things[Math.min(count - 1, at + 1 + Math.floor(next() * 2_000))]!,
    );
    const others = [...new Set(of)];
    return { thing: things[at]!, atLeast: next() < 0.5 ? 1 : others.length, of: others };
  });
  return { things, needs };
}

function timeOf(work: () => void): number {
  const times = Array.from({ length: RUNS }, () => {
    const start = performance.now();
    work();
    return performance.now() - start;
  });
  return median(times);
}

const ms = (time: number): string => `${time.toFixed(0)} ms`;

/** How an estate stands and what works clash, beside what a general graph library takes for reaching alone. */
export async function benchEstate(): Promise<void> {
  const { things, needs } = createEstate(100_000);
  const failed = things.at(-3)!;
  const stands = timeOf(() => standings(things, needs, [failed]));
  const names = new Map<string, number>();
  const lookUps = timeOf(() => {
    things.forEach((id, i) => names.set(id, i));
    for (const { thing, of } of needs) for (const id of [thing, ...of]) names.get(id);
  });
  report('standings: 100,000 things, 300,000 members', ms(stands));
  report('  looking its names up in a Map alone', ms(lookUps), `${(stands / lookUps).toFixed(2)} ×`);
  const library = timeOf(() => {
    const graph = new DirectedGraph();
    for (const id of things) graph.addNode(id);
    for (const { thing, of } of needs) for (const id of of) graph.mergeEdge(id, thing);
    bfsFromNode(graph, failed, () => false);
  });
  report('  building and reaching with graphology', ms(library), `${(stands / library).toFixed(2)} ×`);
  report('single points of failure below one thing', ms(timeOf(() => loneFailures(things, needs, 't0'))));
  const part = createEstate(20_000);
  const next = sequence(2);
  const works: Work[] = Array.from({ length: 500 }, (_, i) => {
    const from = Math.floor(next() * 2_000) * HOUR;
    const takesOut = [0, 1].map(() => part.things[Math.floor(next() * 20_000)]!);
    return { id: `w${i}`, takesOut, from, to: from + Math.ceil(next() * 48) * HOUR };
  });
  const watched = part.things.filter((_, i) => i % 50 === 0);
  const freezes = [{ id: 'f', things: null, from: 0, to: 200 * HOUR }];
  const clashes = timeOf(() => findClashes(part.things, part.needs, watched, works, freezes));
  report('clashes of 500 works among 20,000 things', ms(clashes));
  const ask = {
    ...{ work: { id: 'x', takesOut: ['t19000'] }, duration: 4 * HOUR, notBefore: 0, notAfter: 3_000 * HOUR },
  };
  const windows = [{ from: 0, to: 3_000 * HOUR }];
  const slot = timeOf(() => findSlot(ask, windows, part.things, part.needs, watched, works, freezes));
  report('the next free slot among them', ms(slot));
  return Promise.resolve();
}
