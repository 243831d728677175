const kept = new Map<string, Intl.DateTimeFormat>();

/** A way to write dates, made once: making one takes longer than to draw a whole row. */
export function dateFormat(locale: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const key = `${locale} ${JSON.stringify(options)}`;
  const known = kept.get(key) ?? new Intl.DateTimeFormat(locale, options);
  kept.set(key, known);
  return known;
}
