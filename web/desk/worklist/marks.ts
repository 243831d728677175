import type { Axis } from '../../../core/axis';
import type { Tone } from '../../../core/targets';

/** Something that falls due: of which ticket, when, and how near that is. */
export type Due = { at: number; tone: Tone; number: number; title: string };
/** Due instants that stand too close to be told apart, as one mark, the earliest first. */
export type Mark = { x: number; tone: Tone; dues: Due[] };

const CLOSE = 0.014;
const WORST: Tone[] = ['plenty', 'short', 'past'];

/** Marks along the day line, each for one due instant or for several that fall together. */
export function clusterDues(dues: Due[], axis: Axis): Mark[] {
  const marks: Mark[] = [];
  const onAxis = dues.filter(({ at }) => at >= axis.from && at <= axis.to);
  for (const due of onAxis.sort((a, b) => a.at - b.at)) {
    const x = axis.position(due.at);
    const last = marks.at(-1);
    if (!last || x - last.x > CLOSE) marks.push({ x, tone: due.tone, dues: [due] });
    else {
      last.dues.push(due);
      if (WORST.indexOf(due.tone) > WORST.indexOf(last.tone)) last.tone = due.tone;
    }
  }
  return marks;
}
