import type { ThingMap } from '../../../contract/estate';
import {
  arrange,
  fallsWith,
  indexNeeds,
  type Arrangement,
  type Fallen,
  type Spot,
} from '../../../core/estate';

/** What the map asks to be reckoned beside the page. */
export type Question =
  | { id: number; ask: 'arrange'; map: ThingMap; by: Arrangement; centre: string }
  | { id: number; ask: 'fails'; map: ThingMap; thing: string };
export type Answer = { id: number; spots?: [string, Spot][]; fallen?: Fallen };

/** Where things stand on the map, or what falls with one of them, of what is drawn. */
export function reckon(question: Question): Answer {
  const { id, map } = question;
  if (question.ask === 'fails') {
    const base = new Map(
      map.things.flatMap(({ id: thing, standing }) =>
        standing === 'up' ? [] : [[thing, standing] as const],
      ),
    );
    // A need of which not all is drawn is held by what is not.
    const needs = map.needs.filter(({ of, atLeast }) => of.length >= atLeast && of.length > 0);
    const isFailed = (thing: string): boolean => base.get(thing) === 'down';
    return { id, fallen: fallsWith({ needs, index: indexNeeds(needs) }, question.thing, { base, isFailed }) };
  }
  const edges = map.needs.flatMap(({ thing, of }) => of.map((to) => ({ from: thing, to })));
  const spots = arrange({ things: map.things, edges }, { by: question.by, centre: question.centre });
  return { id, spots: [...spots] };
}
