import type { Scalar } from '../conditions';

/** A chart of a board, and the field by whose values it is split. */
export type BoardChart = { id: string; by: string };

/**
 * What each chart of a board counts when values are chosen in some of them: the facts that fit all choices but its own.
 * Several values of one chart are "or", several charts "and"; an empty choice is none.
 */
export function narrowed<F>(
  facts: F[],
  charts: BoardChart[],
  chosen: Record<string, Scalar[]>,
): Record<string, F[]> {
  const choices = charts
    .filter(({ id }) => Object.hasOwn(chosen, id) && chosen[id]!.length > 0)
    .map(({ id, by }) => ({ id, by, values: new Set(chosen[id]) }));
  const valueOf = (fact: F, by: string): Scalar =>
    Object.hasOwn(fact as object, by) ? ((fact as Record<string, Scalar>)[by] ?? null) : null;
  return Object.fromEntries(
    charts.map(({ id }) => {
      const others = choices.filter((choice) => choice.id !== id);
      return [id, facts.filter((fact) => others.every(({ by, values }) => values.has(valueOf(fact, by))))];
    }),
  );
}
