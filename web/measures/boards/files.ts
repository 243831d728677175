import type { AskedChart } from '../../../contract/measures';

/** Where a chart, or what it counts, is fetched as a file. */
export function toFile(asked: AskedChart, as: 'csv' | 'xlsx' | 'json', what: 'figures' | 'behind'): string {
  return `/api/v1/measures/out?${new URLSearchParams({ asked: JSON.stringify(asked), as, what }).toString()}`;
}

/** Hands a drawing over as a picture. */
export function savePicture(drawing: SVGElement, name: string): void {
  const text = new XMLSerializer().serializeToString(drawing);
  const address = URL.createObjectURL(new Blob([text], { type: 'image/svg+xml' }));
  const link = Object.assign(document.createElement('a'), { href: address, download: `${name}.svg` });
  link.click();
  URL.revokeObjectURL(address);
}
