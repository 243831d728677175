import type { Axis } from '../../../core/axis';
import type { Tone } from '../../ui/clocks';

export type Due = { at: number; tone: Tone };
/** Due instants that stand too close to be told apart, as one mark. */
export type Mark = { x: number; count: number; tone: Tone };

const CLOSE = 0.014;
const WORST: Tone[] = ['plenty', 'short', 'past'];

/** Marks along the day line, each for one due instant or for several that fall together. */
export function clusterDues(dues: Due[], axis: Axis): Mark[] {
  const marks: Mark[] = [];
  const onAxis = dues.filter(({ at }) => at >= axis.from && at <= axis.to);
  for (const { at, tone } of onAxis.sort((a, b) => a.at - b.at)) {
    const x = axis.position(at);
    const last = marks.at(-1);
    if (!last || x - last.x > CLOSE) marks.push({ x, count: 1, tone });
    else {
      last.count++;
      if (WORST.indexOf(tone) > WORST.indexOf(last.tone)) last.tone = tone;
    }
  }
  return marks;
}
