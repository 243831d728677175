import fc from 'fast-check';
import { DirectedGraph } from 'graphology';
import { bfsFromNode } from 'graphology-traversal';
import { arrange, ARRANGEMENTS, fallsWith, indexNeeds, reach, standings, type Need } from './index';
import { estates } from './testing/estates';

const need = (thing: string, atLeast: number, of: string): Need => ({ thing, atLeast, of: of.split(' ') });
const walk = (needs: Need[]) => ({ needs, index: indexNeeds(needs) });

test('what falls with a thing, the nearest first; what is down anyway is not counted', () => {
  const needs = [need('till', 1, 'shop'), need('shop', 1, 'lineA lineB'), need('sign', 1, 'lamp lineA')];
  const things = ['till', 'shop', 'lineA', 'lineB', 'sign', 'lamp'];
  const say = (id: string, failed: string[]) => {
    const base = new Map(
      [...standings(things, needs, failed)].flatMap(([thing, { standing }]) =>
        standing === 'up' ? [] : [[thing, standing] as const],
      ),
    );
    return fallsWith(walk(needs), id, { base, isFailed: (thing) => failed.includes(thing) });
  };
  expect(say('lineA', [])).toEqual({ down: [], weakened: ['shop', 'sign', 'till'] });
  expect(say('lineA', ['lineB'])).toEqual({ down: ['shop', 'till'], weakened: ['sign'] });
  expect(say('lineA', ['lineB', 'shop'])).toEqual({ down: [], weakened: ['sign'] });
});

test('law: what falls is what the whole network says with one more failure, against without', () => {
  fc.assert(
    fc.property(
      estates(12),
      fc.array(fc.nat(11), { maxLength: 3 }),
      fc.nat(11),
      ({ things, needs }, f, i) => {
        const failed = [...new Set(f.map((place) => things[place % things.length]!))];
        const id = things[i % things.length]!;
        const before = standings(things, needs, failed);
        const after = standings(things, needs, [...failed, id]);
        const base = new Map(
          [...before].flatMap(([thing, { standing }]) =>
            standing === 'up' ? [] : [[thing, standing] as const],
          ),
        );
        const said = fallsWith(walk(needs), id, { base, isFailed: (thing) => failed.includes(thing) });
        const became = (standing: 'down' | 'weakened'): string[] =>
          things.filter(
            (thing) =>
              thing !== id &&
              after.get(thing)!.standing === standing &&
              before.get(thing)!.standing !== standing,
          );
        expect([...said.down].sort()).toEqual(became('down').sort());
        expect([...said.weakened].sort()).toEqual(became('weakened').sort());
      },
    ),
    { numRuns: 500 },
  );
});

test('law: what is reached, and how far, is as graphology says; the nearest come first', () => {
  fc.assert(
    fc.property(estates(12), fc.nat(11), ({ things, needs }, i) => {
      const from = things[i % things.length]!;
      const graph = new DirectedGraph();
      for (const thing of things) graph.addNode(thing);
      for (const { thing, of } of needs) for (const member of of) graph.mergeEdge(thing, member);
      const wanted = new Map<string, number>();
      bfsFromNode(graph, from, (id, _, depth) => void wanted.set(id, depth), { mode: 'outbound' });
      const found = reach(walk(needs), [from], { way: 'below' });
      expect(Object.fromEntries(found)).toEqual(Object.fromEntries(wanted));
      expect([...found.values()]).toEqual([...found.values()].sort((a, b) => a - b));
      for (const other of found.keys())
        expect(reach(walk(needs), [other], { way: 'above' }).has(from)).toBe(true);
      expect(reach(walk(needs), [from], { way: 'below', most: 3 }).size).toBe(Math.min(3, wanted.size));
      for (const steps of reach(walk(needs), [from], { way: 'below', depth: 1 }).values())
        expect(steps).toBeLessThanOrEqual(1);
    }),
  );
});

test('law: every arrangement puts each thing on a spot of its own; layers put what needs above', () => {
  fc.assert(
    fc.property(estates(14), ({ things, needs }) => {
      const edges = needs.flatMap(({ thing, of }) => of.map((to) => ({ from: thing, to })));
      const mapped = things.map((id, i) => ({ id, place: `p${i % 3}` }));
      for (const by of ARRANGEMENTS) {
        const spots = arrange({ things: mapped, edges }, { by, centre: things[0]! });
        const taken = new Set([...spots.values()].map(({ x, y }) => `${x.toFixed(3)} ${y.toFixed(3)}`));
        expect(taken.size).toBe(things.length);
      }
      const layers = arrange({ things: mapped, edges }, { by: 'layers', centre: things[0]! });
      const inRing = (a: string, b: string): boolean => reach(walk(needs), [b], { way: 'below' }).has(a);
      for (const { from, to } of edges)
        if (!inRing(from, to)) expect(layers.get(from)!.y).toBeLessThan(layers.get(to)!.y);
    }),
  );
});

test('rings put a thing in the middle and those beside it nearer than those behind; places make blocks', () => {
  const things = ['hub', 'a', 'b', 'far'].map((id) => ({ id, place: id === 'far' ? 'quay' : 'office' }));
  const edges = [
    { from: 'a', to: 'hub' },
    { from: 'hub', to: 'b' },
    { from: 'far', to: 'a' },
  ];
  const rings = arrange({ things, edges }, { by: 'rings', centre: 'hub' });
  const away = (id: string): number => Math.hypot(rings.get(id)!.x, rings.get(id)!.y);
  expect(away('hub')).toBe(0);
  expect(away('a')).toBeCloseTo(away('b'));
  expect(away('far')).toBeGreaterThan(away('a'));
  const places = arrange({ things, edges }, { by: 'places', centre: 'hub' });
  expect(Math.max(...['hub', 'a', 'b'].map((id) => places.get(id)!.x))).toBeLessThan(places.get('far')!.x);
});
