import fc from 'fast-check';
import { DirectedGraph } from 'graphology';
import { bfsFromNode } from 'graphology-traversal';
import { BadEstate, standings, type Need } from './index';
import { estates, sweep } from './testing/estates';

const need = (thing: string, atLeast: number, of: string): Need => ({ thing, atLeast, of: of.split(' ') });

test('says in which round each falls, by which needs, and what has less behind it', () => {
  const things = ['till', 'shop', 'network', 'lineA', 'lineB', 'sign'];
  const needs = [
    need('till', 1, 'shop'),
    need('shop', 1, 'network'),
    need('network', 1, 'lineA lineB'),
    need('till', 1, 'sign'),
  ];
  expect([...standings(things, needs, ['lineA'])]).toEqual([
    ['till', { standing: 'weakened', fell: null, unmet: [] }],
    ['shop', { standing: 'weakened', fell: null, unmet: [] }],
    ['network', { standing: 'weakened', fell: null, unmet: [] }],
    ['lineA', { standing: 'down', fell: 0, unmet: [] }],
    ['lineB', { standing: 'up', fell: null, unmet: [] }],
    ['sign', { standing: 'up', fell: null, unmet: [] }],
  ]);
  const both = standings(things, needs, ['lineA', 'lineB', 'sign', 'lineA']);
  expect(both.get('network')).toEqual({ standing: 'down', fell: 1, unmet: [2] });
  expect(both.get('shop')).toEqual({ standing: 'down', fell: 2, unmet: [1] });
  // The sign takes it down in the first round; in the end both needs are unmet.
  expect(both.get('till')).toEqual({ standing: 'down', fell: 1, unmet: [0, 3] });
});

test('things in a ring hold each other up, until one of them fails', () => {
  const needs = [need('a', 1, 'b'), need('b', 1, 'c'), need('c', 1, 'a')];
  const of = (failed: string[]): string[] =>
    [...standings(['a', 'b', 'c'], needs, failed).values()].map(
      ({ standing, fell }) => `${standing} ${fell}`,
    );
  expect(of([])).toEqual(['up null', 'up null', 'up null']);
  expect(of(['b'])).toEqual(['down 1', 'down 0', 'down 2']);
});

test('what needs more than there is has never been up; what needs none of them is only weakened', () => {
  const needs = [need('a', 3, 'c d'), need('b', 1, 'a'), need('d', 0, 'a')];
  const stands = standings(['a', 'b', 'c', 'd'], needs, []);
  expect(stands.get('a')).toEqual({ standing: 'down', fell: 1, unmet: [0] });
  expect(stands.get('b')).toMatchObject({ standing: 'down', fell: 2 });
  expect(stands.get('d')).toMatchObject({ standing: 'weakened' });
});

test('lists everything that is wrong with an estate', () => {
  const wrong = (): unknown =>
    standings(['a', 'b', 'a'], [need('a', 1.5, 'a x x'), need('y', 1, 'b')], ['z', 'z']);
  expect(wrong).toThrow(BadEstate);
  try {
    wrong();
  } catch (error) {
    const { problems } = error as BadEstate;
    expect(problems.map(({ code, id }) => `${code} ${id}`).sort()).toEqual([
      ...['atLeast a', 'doubled a', 'doubled x', 'itself a', 'unknown x', 'unknown y', 'unknown z'],
    ]);
    expect(problems.every(({ message, id }) => message.includes(id))).toBe(true);
  }
});

test('law: what is down is what plain sweeping finds, round after round', () => {
  fc.assert(
    fc.property(estates(8), fc.nat(255), ({ things, needs }, mask) => {
      const failed = things.filter((_, i) => mask & (1 << i));
      const stands = standings(things, needs, failed);
      const down = sweep(needs, failed);
      expect(things.filter((id) => stands.get(id)!.standing === 'down')).toEqual(
        things.filter((id) => down.has(id)),
      );
      for (const [id, { standing, fell, unmet }] of stands) {
        if (standing !== 'down' || fell === 0) continue;
        // It fell as soon as what was down a round before left a need unmet, and not sooner.
        const before = (round: number): Set<string> =>
          new Set(things.filter((each) => (stands.get(each)!.fell ?? Infinity) <= round));
        const isUnmet = ({ atLeast, of }: Need, gone: Set<string>): boolean =>
          of.filter((each) => !gone.has(each)).length < atLeast;
        const own = needs.filter(({ thing }) => thing === id);
        expect(own.some((each) => isUnmet(each, before(fell! - 1)))).toBe(true);
        if (fell! > 1) expect(own.some((each) => isUnmet(each, before(fell! - 2)))).toBe(false);
        expect(unmet.map((i) => needs[i])).toEqual(own.filter((each) => isUnmet(each, down)));
      }
    }),
  );
});

test('law: more failures never bring anything up', () => {
  fc.assert(
    fc.property(estates(8), fc.nat(255), fc.nat(7), ({ things, needs }, mask, more) => {
      const failed = things.filter((_, i) => mask & (1 << i));
      const rank = { up: 0, weakened: 1, down: 2 } as const;
      const fewer = standings(things, needs, failed);
      const all = standings(things, needs, [...failed, things[more % things.length]!]);
      for (const id of things)
        expect(rank[all.get(id)!.standing]).toBeGreaterThanOrEqual(rank[fewer.get(id)!.standing]);
    }),
  );
});

test('where all of everything is needed, one failure takes down what a graph library reaches from it', () => {
  fc.assert(
    fc.property(estates(12), fc.nat(11), ({ things, needs }, at) => {
      const all = needs.map((each) => ({ ...each, atLeast: each.of.length }));
      const graph = new DirectedGraph();
      for (const id of things) graph.addNode(id);
      for (const { thing, of } of all) for (const id of of) graph.mergeEdge(id, thing);
      const failed = things[at % things.length]!;
      const reached = new Set<string>();
      bfsFromNode(graph, failed, (node) => void reached.add(node));
      const stands = standings(things, all, [failed]);
      expect(things.filter((id) => stands.get(id)!.standing === 'down')).toEqual(
        things.filter((id) => reached.has(id)),
      );
    }),
  );
});
