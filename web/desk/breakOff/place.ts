const KEPT = 'listo-broken-off';

/** Where someone broke off: the page, what they were writing in and where in it, how far they had read. */
export type Place = {
  address: string;
  title: string;
  field: { label: string; start: number | null; end: number | null } | null;
  /** How far each part of the page was scrolled, by its name. */
  scrolled: Record<string, number>;
};

type Field = HTMLInputElement | HTMLTextAreaElement;

const isField = (element: Element | null): element is Field =>
  element instanceof HTMLInputElement || element instanceof HTMLTextAreaElement;

const nameOf = (field: Field): string =>
  field.getAttribute('aria-label') ?? field.labels?.[0]?.textContent ?? field.placeholder;

const listParts = (): HTMLElement[] => [
  ...document.querySelectorAll<HTMLElement>('[role="region"][aria-label]'),
];

/** Notes the place where someone is. */
export function notePlace(): Place {
  const { activeElement } = document;
  const { pathname, search, hash } = window.location;
  const field = isField(activeElement) ? activeElement : null;
  const ofTicket = document.querySelector('#content article h1');
  const heading = (ofTicket ?? document.querySelector('#content h1'))?.textContent ?? '';
  return {
    address: `${pathname}${search}${hash}`,
    title: heading.trim(),
    field: field && { label: nameOf(field), start: field.selectionStart, end: field.selectionEnd },
    scrolled: Object.fromEntries(
      listParts().map((part) => [part.getAttribute('aria-label')!, part.scrollTop]),
    ),
  };
}

/** Puts back what can be put back now. @returns whether the field is there again */
export function putBack({ field, scrolled }: Place): boolean {
  for (const part of listParts()) {
    const top = scrolled[part.getAttribute('aria-label')!];
    if (top !== undefined) part.scrollTop = top;
  }
  if (field === null) return true;
  const found = [
    ...document.querySelectorAll('#content input, #content textarea, [role="dialog"] textarea'),
  ].find((element): element is Field => isField(element) && nameOf(element) === field.label);
  if (!found) return false;
  found.focus();
  // Numbers and dates have no place inside them.
  if (field.start !== null) found.setSelectionRange(field.start, field.end);
  return true;
}

/** The place that someone has to come back to, kept for this window. */
export function readKept(): Place | null {
  const kept = sessionStorage.getItem(KEPT);
  return kept === null ? null : (JSON.parse(kept) as Place);
}

export function keepPlace(place: Place | null): void {
  if (place === null) sessionStorage.removeItem(KEPT);
  else sessionStorage.setItem(KEPT, JSON.stringify(place));
}
