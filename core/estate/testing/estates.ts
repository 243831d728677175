import fc from 'fast-check';
import type { Need } from '../types';

/** What is down, found by sweeping over all needs until nothing changes: as plain as can be, for comparison. */
export function sweep(needs: Need[], failed: string[]): Set<string> {
  const down = new Set(failed);
  for (let isChanged = true; isChanged;) {
    isChanged = false;
    for (const { thing, atLeast, of } of needs)
      if (!down.has(thing) && of.filter((id) => !down.has(id)).length < atLeast) {
        down.add(thing);
        isChanged = true;
      }
  }
  return down;
}

const idsOf = (count: number): string[] => Array.from({ length: count }, (_, i) => `t${i}`);

/** Random estates of so many things: needs of one, of all and of some, rings among them. */
export const estates = (most: number): fc.Arbitrary<{ things: string[]; needs: Need[] }> =>
  fc.integer({ min: 2, max: most }).chain((count) => {
    const things = idsOf(count);
    const need = fc
      .record({
        thing: fc.constantFrom(...things),
        of: fc.subarray(things, { minLength: 1, maxLength: Math.min(4, count) }),
      })
      .chain(({ thing, of }) => {
        const others = of.filter((id) => id !== thing);
        const most = others.length + (others.length > 0 ? 0 : -1);
        return fc
          .integer({ min: 0, max: Math.max(0, most) })
          .map((atLeast) => ({ thing, atLeast, of: others }));
      });
    return fc.array(need, { maxLength: count * 2 }).map((needs) => ({ things, needs }));
  });
