import type { ThingMap } from '../../../contract/estate';
import type { Fallen, Spot } from '../../../core/estate';

/** The size of a step between two things, in the units of the map. */
export const STEP = { x: 150, y: 64 };
const RADIUS = 7;
/** Names are written once there is room for them. */
const NAMES_FROM = 0.55;

export type View = { k: number; x: number; y: number };
export type Drawn = {
  map: ThingMap;
  spots: Map<string, Spot>;
  centre: string;
  pointed: string | null;
  fallen: Fallen | null;
};

/** The colours of the theme, as they are now. */
export function readColours(element: Element) {
  const style = getComputedStyle(element);
  const colour = (name: string): string => style.getPropertyValue(name).trim();
  return {
    ...{ ink: colour('--ink'), muted: colour('--muted'), line: colour('--edge'), sea: colour('--sea') },
    ...{ panel: colour('--panel'), quiet: colour('--hairline') },
    font: style.fontFamily,
  };
}
export type Colours = ReturnType<typeof readColours>;

export const toPoint = ({ x, y }: Spot): { x: number; y: number } => ({ x: x * STEP.x, y: y * STEP.y });

/** Whole: filled. Less behind it: open. Down: open and struck through. */
function drawShape(
  context: CanvasRenderingContext2D,
  { x, y }: { x: number; y: number },
  { standing, colour, ground }: { standing: string; colour: string; ground: string },
): void {
  context.beginPath();
  context.arc(x, y, RADIUS, 0, 2 * Math.PI);
  context.fillStyle = standing === 'up' ? colour : ground;
  context.fill();
  context.strokeStyle = colour;
  context.lineWidth = 2;
  context.stroke();
  if (standing !== 'down') return;
  context.beginPath();
  context.moveTo(x - RADIUS - 3, y + RADIUS + 3);
  context.lineTo(x + RADIUS + 3, y - RADIUS - 3);
  context.stroke();
}

function drawNeeds(
  context: CanvasRenderingContext2D,
  { map, spots, pointed, fallen }: Drawn,
  { colours, k }: { colours: Colours; k: number },
): void {
  const hit = new Set(fallen ? [pointed, ...fallen.down, ...fallen.weakened] : []);
  for (const { thing, of, atLeast } of map.needs) {
    const from = spots.get(thing);
    if (!from) continue;
    // Where not all of them are needed, the line is broken.
    context.setLineDash(atLeast < of.length ? [5 / k, 4 / k] : []);
    for (const member of of) {
      const to = spots.get(member);
      if (!to) continue;
      const isHit = hit.has(thing) && hit.has(member);
      context.strokeStyle = isHit ? colours.ink : colours.line;
      // As thin from afar as from near.
      context.lineWidth = (isHit ? 2 : 1) / k;
      context.beginPath();
      context.moveTo(from.x * STEP.x, from.y * STEP.y);
      context.lineTo(to.x * STEP.x, to.y * STEP.y);
      context.stroke();
    }
  }
  context.setLineDash([]);
}

/** How a thing stands, were the one that is pointed at to fail. */
function standingThen({ pointed, fallen }: Drawn, id: string, standing: string): string {
  if (!fallen) return standing;
  if (id === pointed || fallen.down.includes(id)) return 'down';
  return fallen.weakened.includes(id) ? 'weakened' : standing;
}

/** Draws the map as it is seen. Only what lies in sight is drawn. */
export function draw(
  context: CanvasRenderingContext2D,
  drawn: Drawn,
  { view, width, height, colours }: { view: View; width: number; height: number; colours: Colours },
): void {
  const { map, spots, centre, pointed } = drawn;
  const ratio = window.devicePixelRatio || 1;
  context.setTransform(ratio, 0, 0, ratio, 0, 0);
  context.clearRect(0, 0, width, height);
  context.translate(view.x, view.y);
  context.scale(view.k, view.k);
  drawNeeds(context, drawn, { colours, k: view.k });
  context.textAlign = 'center';
  for (const { id, name, standing, isWatched, openTickets } of map.things) {
    const spot = spots.get(id);
    if (!spot) continue;
    const { x, y } = toPoint(spot);
    const [left, top] = [view.x + x * view.k, view.y + y * view.k];
    if (left < -90 || left > width + 90 || top < -40 || top > height + 40) continue;
    const colour = id === centre ? colours.sea : colours.ink;
    const then = standingThen(drawn, id, standing);
    drawShape(context, { x, y }, { standing: then, colour, ground: colours.panel });
    const isMeant = id === centre || id === pointed;
    if (view.k < NAMES_FROM && !isMeant) continue;
    // Where names are written they can be read, from however far.
    const size = Math.max(12, 12 / view.k);
    context.font = `${isMeant ? 600 : 400} ${size}px ${colours.font}`;
    const words = `${isWatched ? '◉ ' : ''}${name}${openTickets > 0 ? ` · ${openTickets}` : ''}`;
    context.fillStyle = then === 'up' ? colour : colours.muted;
    context.fillText(words.length > 26 ? `${words.slice(0, 25)}…` : words, x, y + RADIUS + 3 + size);
  }
}
