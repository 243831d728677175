/** A thing to be put on the map: where it stands, for the arrangement by place. */
export type Mapped = { id: string; place: string };
/** `from` needs `to`. */
export type Edge = { from: string; to: string };
/** Where a thing stands on the map, in steps of one thing's width and height. */
export type Spot = { x: number; y: number };

/** The ways in which a map can be drawn. */
export const ARRANGEMENTS = ['layers', 'rings', 'places'] as const;
/** A way in which a map can be drawn. */
export type Arrangement = (typeof ARRANGEMENTS)[number];

const neighboursOf = (edges: readonly Edge[], way: 'out' | 'in' | 'both'): Map<string, string[]> => {
  const map = new Map<string, string[]>();
  const put = (a: string, b: string): void => void map.set(a, [...(map.get(a) ?? []), b]);
  for (const { from, to } of edges) {
    if (way !== 'in') put(from, to);
    if (way !== 'out') put(to, from);
  }
  return map;
};

/** How far below the top each thing stands: one further than the lowest of those who need it. Rings are cut where they close. */
function levelsOf(things: readonly Mapped[], edges: readonly Edge[]): Map<string, number> {
  const needers = neighboursOf(edges, 'in');
  const levels = new Map<string, number>();
  const open = new Set<string>();
  for (const { id } of things) {
    // By hand, not by calling itself: chains may be longer than the stack is deep.
    const stack = [id];
    while (stack.length > 0) {
      const current = stack.at(-1)!;
      const waits = (needers.get(current) ?? []).filter((other) => !levels.has(other) && !open.has(other));
      open.add(current);
      if (!levels.has(current) && waits.length > 0) stack.push(waits[0]!);
      else {
        const known = (needers.get(current) ?? []).flatMap((other) => levels.get(other) ?? []);
        if (!levels.has(current)) levels.set(current, known.length === 0 ? 0 : Math.max(...known) + 1);
        stack.pop();
      }
    }
  }
  return levels;
}

/** The mean of where the neighbours stand; those without any stay where they are. */
function pulled(ids: string[], at: Map<string, number>, neighbours: Map<string, string[]>): string[] {
  const pull = new Map(
    ids.map((id, i) => {
      const places = (neighbours.get(id) ?? []).flatMap((other) => at.get(other) ?? []);
      return [id, places.length === 0 ? i : places.reduce((sum, x) => sum + x, 0) / places.length];
    }),
  );
  return [...ids].sort((a, b) => pull.get(a)! - pull.get(b)!);
}

const SWEEPS = 4;

/** Rows that are wider than the whole is high are broken into several. */
function widthFor(count: number): number {
  return Math.max(8, Math.ceil(Math.sqrt(count) * 1.6));
}

/** What needs above what is needed, each layer in the order that crosses least by the mean of its neighbours (Sugiyama’s way). */
function inLayers(things: readonly Mapped[], edges: readonly Edge[]): Map<string, Spot> {
  const levels = levelsOf(things, edges);
  const rows: string[][] = [];
  for (const { id } of things) (rows[levels.get(id)!] ??= []).push(id);
  const [up, down] = [neighboursOf(edges, 'in'), neighboursOf(edges, 'out')];
  const at = new Map<string, number>();
  const note = (row: string[]): void => row.forEach((id, i) => at.set(id, i - (row.length - 1) / 2));
  rows.forEach(note);
  for (let sweep = 0; sweep < SWEEPS; sweep++) {
    const isDown = sweep % 2 === 0;
    const order = isDown ? [...rows.keys()] : [...rows.keys()].reverse();
    for (const i of order) {
      rows[i] = pulled(rows[i]!, at, isDown ? up : down);
      note(rows[i]);
    }
  }
  const width = widthFor(things.length);
  const spots = new Map<string, Spot>();
  let y = 0;
  for (const row of rows) {
    for (let begin = 0; begin < row.length; begin += width) {
      const part = row.slice(begin, begin + width);
      part.forEach((id, i) => spots.set(id, { x: i - (part.length - 1) / 2, y }));
      y += 1;
    }
    y += 1;
  }
  return spots;
}

/** One thing in the middle, the others in rings by how many steps away they are; what is in no way tied to it, outermost. */
function inRings(things: readonly Mapped[], edges: readonly Edge[], centre: string): Map<string, Spot> {
  const neighbours = neighboursOf(edges, 'both');
  const distance = new Map([[centre, 0]]);
  for (const [id, steps] of distance)
    for (const other of neighbours.get(id) ?? []) if (!distance.has(other)) distance.set(other, steps + 1);
  const outermost = Math.max(...distance.values()) + 1;
  const rings = Array.from({ length: outermost + 1 }, (): string[] => []);
  for (const { id } of things) rings[distance.get(id) ?? outermost]!.push(id);
  const turn = new Map<string, number>();
  const spots = new Map<string, Spot>();
  let radius = 0;
  for (const ring of rings) {
    if (ring.length === 0) continue;
    const ordered = pulled(ring, turn, neighbours);
    // Wide enough that those of a ring do not touch.
    radius = ring[0] === centre ? 0 : Math.max(radius + 1.6, (ring.length * 1.3) / (2 * Math.PI));
    ordered.forEach((id, i) => {
      const angle = (2 * Math.PI * i) / ordered.length;
      turn.set(id, angle);
      spots.set(id, { x: radius * Math.sin(angle), y: -radius * Math.cos(angle) });
    });
  }
  return spots;
}

/** Those of one place in one block, the largest blocks first. */
function byPlace(things: readonly Mapped[]): Map<string, Spot> {
  const places = new Map<string, string[]>();
  for (const { id, place } of things) places.set(place, [...(places.get(place) ?? []), id]);
  const blocks = [...places.values()].sort((a, b) => b.length - a.length);
  const width = widthFor(things.length);
  const spots = new Map<string, Spot>();
  let [left, top, high] = [0, 0, 0];
  for (const block of blocks) {
    const wide = Math.min(width, Math.ceil(Math.sqrt(block.length)));
    if (left > 0 && left + wide > width) [left, top, high] = [0, top + high + 2, 0];
    block.forEach((id, i) => spots.set(id, { x: left + (i % wide), y: top + Math.floor(i / wide) }));
    high = Math.max(high, Math.ceil(block.length / wide));
    left += wide + 1;
  }
  return spots;
}

/**
 * Puts things on a map, no two on one spot.
 * @param centre the thing in the middle of the rings
 * @returns the spot of each; x grows to the right, y downwards
 */
export function arrange(
  { things, edges }: { things: readonly Mapped[]; edges: readonly Edge[] },
  { by, centre }: { by: Arrangement; centre: string },
): Map<string, Spot> {
  if (by === 'places') return byPlace(things);
  return by === 'rings' ? inRings(things, edges, centre) : inLayers(things, edges);
}
