import { readFileSync } from 'node:fs';

/** The colours of a scheme by their names, as written in the sheet. */
function readScheme(selector: string): Map<string, string> {
  const sheet = readFileSync(new URL('./colours.css', import.meta.url), 'utf8');
  const from = sheet.indexOf(`${selector} {`);
  const block = sheet.slice(from, sheet.indexOf('}', from));
  return new Map(
    [...block.matchAll(/--([\w-]+): (#[0-9a-f]{6});/gu)].map(([, name, value]) => [name!, value!]),
  );
}

/** Relative luminance as WCAG 2.2 defines it. */
function luminance(colour: string): number {
  const parts = [1, 3, 5].map((i) => parseInt(colour.slice(i, i + 2), 16) / 255);
  const [r, g, b] = parts.map((part) => (part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4));
  return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
}
/** Contrast ratio as WCAG 2.2 defines it. */
function contrast(one: string, other: string): number {
  const [darker, lighter] = [luminance(one), luminance(other)].sort((a, b) => a - b);
  return (lighter! + 0.05) / (darker! + 0.05);
}

const GROUNDS = ['paper', 'panel', 'raised', 'sea-tint', 'ochre-tint', 'brick-tint', 'slate', 'fold'];
const TEXTS = ['ink', 'muted', 'sea', 'ochre-text', 'brick'];
const SCHEMES = { light: ':root', dark: ":root[data-mantine-color-scheme='dark']" };

// Black on white has 21:1 by the definition of contrast ratio in WCAG 2.2; that #777777 falls just short of 4.5:1 is from memory.
test('contrast is reckoned as the standard does', () => {
  expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 5);
  expect(contrast('#777777', '#ffffff')).toBeCloseTo(4.478, 3);
});

test.each(
  Object.entries(SCHEMES).flatMap(([scheme, selector]) => TEXTS.map((text) => [text, scheme, selector])),
)('%s can be read on every ground of the %s scheme', (text, _, selector) => {
  const colours = readScheme(selector!);
  const weak = GROUNDS.flatMap((ground) => {
    const ratio = contrast(colours.get(text!)!, colours.get(ground)!);
    return ratio < 4.5 ? [`${ground}: ${ratio.toFixed(2)}`] : [];
  });
  expect(weak).toEqual([]);
});
