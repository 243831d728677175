import type { KeyboardEvent } from 'react';

/** Enter takes the only one that was found for the words that stand in the field. */
export function onEnterTakeOnly<T>(
  found: readonly T[],
  isCurrent: boolean,
  take: (one: T) => void,
): (event: KeyboardEvent) => void {
  return (event) => {
    const [only] = found;
    if (event.key !== 'Enter' || !isCurrent || found.length !== 1 || only === undefined) return;
    // The form is not sent by it.
    event.preventDefault();
    take(only);
  };
}
