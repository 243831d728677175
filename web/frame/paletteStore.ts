import { createSpotlight } from '@mantine/spotlight';

/** Whether the palette is open, and what of it is marked. */
export const [paletteStore, palette] = createSpotlight();

/** Marks what Enter opens. @param wanted which of the shown, given the one that is marked now (-1: none) */
export function markShown(wanted: (marked: number) => number): void {
  const { listId } = paletteStore.getState();
  const all = [...(document.getElementById(listId)?.querySelectorAll('[data-action]') ?? [])];
  const selected = wanted(all.findIndex((one) => one.hasAttribute('data-selected')));
  all.forEach((one, i) => {
    one.toggleAttribute('data-selected', i === selected);
    if (i === selected) one.scrollIntoView({ block: 'nearest' });
  });
  paletteStore.updateState((state) => ({ ...state, selected }));
}
