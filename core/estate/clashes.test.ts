import fc from 'fast-check';
import { BadEstate, findClashes, findSlot, type Clash, type Freeze, type Need, type Work } from './index';
import { estates, sweep } from './testing/estates';

/** Clashes as they are said in words, by trying every set of works. */
function tryEverything(
  { things, needs, watched }: { things: string[]; needs: Need[]; watched: string[] },
  works: Work[],
  freezes: Freeze[],
): Clash[] {
  const anyway = sweep(needs, []);
  const downBy = (set: Work[]): Set<string> =>
    sweep(
      needs,
      set.flatMap(({ takesOut }) => takesOut),
    );
  const inOrder = (ids: Iterable<string>): string[] => things.filter((id) => new Set(ids).has(id));
  const overlap = (set: { from: number; to: number }[]): { from: number; to: number } => ({
    from: Math.max(...set.map(({ from }) => from)),
    to: Math.min(...set.map(({ to }) => to)),
  });
  const clashes: { clash: Clash; key: number[] }[] = [];
  const kinds = ['frozen', 'same', 'alone', 'together'];
  const add = (clash: Clash, places: number[]): void => {
    if (clash.to > clash.from)
      clashes.push({ clash, key: [clash.from, kinds.indexOf(clash.kind), ...places] });
  };
  const feltBy = (set: Work[]): string[] =>
    inOrder(watched).filter((id) => !anyway.has(id) && downBy(set).has(id));
  works.forEach((a, i) => {
    freezes.forEach((freeze, f) => {
      const down = new Set([...a.takesOut, ...[...downBy([a])].filter((id) => !anyway.has(id))]);
      const frozen = inOrder(
        freeze.things === null ? a.takesOut : freeze.things.filter((id) => down.has(id)),
      );
      const clash = { kind: 'frozen' as const, works: [a.id], things: frozen, ...overlap([a, freeze]) };
      if (freeze.things === null || frozen.length > 0) add({ ...clash, freeze: freeze.id }, [i, f]);
    });
    const alone = feltBy([a]).filter((id) => !a.takesOut.includes(id));
    if (alone.length > 0) add({ kind: 'alone', works: [a.id], things: alone, from: a.from, to: a.to }, [i]);
    works.slice(i + 1).forEach((b, j) => {
      const same = inOrder(a.takesOut.filter((id) => b.takesOut.includes(id)));
      const ids = [a.id, b.id];
      if (same.length > 0)
        add({ kind: 'same', works: ids, things: same, ...overlap([a, b]) }, [i, i + 1 + j]);
      const two = feltBy([a, b]).filter((id) => !downBy([a]).has(id) && !downBy([b]).has(id));
      if (two.length > 0)
        add({ kind: 'together', works: ids, things: two, ...overlap([a, b]) }, [i, i + 1 + j]);
      works.slice(i + j + 2).forEach((c, k) => {
        const pairs = [downBy([a, b]), downBy([a, c]), downBy([b, c])];
        const three = feltBy([a, b, c]).filter((id) => !pairs.some((down) => down.has(id)));
        const at = [i, i + 1 + j, i + j + 2 + k];
        if (three.length > 0)
          add({ kind: 'together', works: [...ids, c.id], things: three, ...overlap([a, b, c]) }, at);
      });
    });
  });
  const byKey = (a: { key: number[] }, b: { key: number[] }): number => {
    const at = a.key.findIndex((value, i) => value !== b.key[i]);
    return at === -1 ? a.key.length - b.key.length : a.key[at]! - (b.key[at] ?? -1);
  };
  return clashes.sort(byKey).map(({ clash }) => clash);
}

const stretch = fc
  .tuple(fc.nat(12), fc.integer({ min: 1, max: 6 }))
  .map(([from, length]) => ({ from, to: from + length }));

const calendars = estates(8).chain(({ things, needs }) => {
  const some = fc.subarray(things, { maxLength: Math.min(3, things.length) });
  const all = <T>(of: fc.Arbitrary<T>): fc.Arbitrary<T[]> => fc.array(of, { maxLength: 6 });
  return fc.record({
    estate: fc.record({ things: fc.constant(things), needs: fc.constant(needs), watched: some }),
    works: all(fc.tuple(some, stretch)).map((list) =>
      list.map(([takesOut, each], i) => ({ id: `w${i}`, takesOut, ...each })),
    ),
    freezes: fc
      .array(fc.tuple(fc.option(some), stretch), { maxLength: 2 })
      .map((list) => list.map(([frozen, each], i) => ({ id: `f${i}`, things: frozen, ...each }))),
    takesOut: some,
    duration: fc.integer({ min: 1, max: 4 }),
    windows: fc.array(stretch, { minLength: 1, maxLength: 3 }),
  });
});

test('law: clashes are those that trying every set of works finds, in the same order', () => {
  fc.assert(
    fc.property(calendars, ({ estate, works, freezes }) => {
      const { things, needs, watched } = estate;
      expect(findClashes(things, needs, watched, works, freezes)).toEqual(
        tryEverything(estate, works, freezes),
      );
    }),
    { numRuns: 1_000 },
  );
});

test('law: a slot is the first start without a clash, and none is missed', () => {
  fc.assert(
    fc.property(calendars, ({ estate, works, freezes, takesOut, duration, windows }) => {
      const { things, needs, watched } = estate;
      const fits = (start: number): boolean => {
        const to = start + duration;
        const points = Array.from({ length: duration }, (_, i) => start + i);
        const isOpen = points.every((at) => windows.some((each) => each.from <= at && at + 1 <= each.to));
        if (start < 2 || to > 18 || !isOpen) return false;
        const asked = { id: 'asked', takesOut, from: start, to };
        return !findClashes(things, needs, watched, [...works, asked], freezes).some(
          ({ kind, works: ids }) => kind !== 'alone' && ids.includes('asked'),
        );
      };
      const starts = Array.from({ length: 20 }, (_, i) => i);
      const ask = { work: { id: 'asked', takesOut }, duration, notBefore: 2, notAfter: 18 };
      expect(findSlot(ask, windows, things, needs, watched, works, freezes)).toBe(starts.find(fits) ?? null);
    }),
    { numRuns: 600 },
  );
});

const lines: Need[] = [{ thing: 'booking', atLeast: 1, of: ['lineA', 'lineB', 'lineC'] }];
const things = ['booking', 'lineA', 'lineB', 'lineC'];

test('three works that together take out the last line clash; two of them do not', () => {
  const work = (id: string, line: string, from: number, to: number): Work => ({
    id,
    takesOut: [line],
    from,
    to,
  });
  const works = [work('one', 'lineA', 0, 10), work('two', 'lineB', 4, 12), work('three', 'lineC', 8, 20)];
  expect(findClashes(things, lines, ['booking'], works.slice(0, 2), [])).toEqual([]);
  expect(findClashes(things, lines, ['booking'], works, [])).toEqual([
    { kind: 'together', works: ['one', 'two', 'three'], things: ['booking'], from: 8, to: 10 },
  ]);
  // Its old place does not stand in its own way.
  const ask = { work: { id: 'three', takesOut: ['lineC'] }, duration: 5, notBefore: 0, notAfter: 30 };
  expect(findSlot(ask, [{ from: 3, to: 30 }], things, lines, ['booking'], works, [])).toBe(10);
});

test('lists everything that is wrong with works, freezes and windows', () => {
  const works = [
    { id: 'a', takesOut: ['gone'], from: 5, to: 5 },
    { id: 'a', takesOut: [], from: 1, to: Number.NaN },
  ];
  const freezes = [{ id: 'f', things: ['lost'], from: 2, to: 1 }];
  const ask = { work: { id: 'asked', takesOut: ['missing'] }, duration: 0, notBefore: 0, notAfter: 1 };
  try {
    findSlot(ask, [{ from: 1, to: 1 }], things, lines, ['nobody'], works, freezes);
    throw new Error('nothing was said');
  } catch (error) {
    expect(error).toBeInstanceOf(BadEstate);
    expect((error as BadEstate).problems.map(({ code, id }) => `${code} ${id}`).sort()).toEqual([
      ...['doubled a', 'empty ', 'empty a', 'empty asked', 'empty f'],
      ...['unknown gone', 'unknown lost', 'unknown missing', 'unknown nobody'],
    ]);
  }
});
