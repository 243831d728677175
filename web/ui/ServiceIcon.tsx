import { lazy, Suspense } from 'react';

/** What a service can be marked by; named by what is drawn. */
export const SERVICE_ICONS = [
  ...['anchor', 'bolt', 'bed', 'camera', 'car', 'clock', 'coffee', 'coin', 'deviceDesktop', 'deviceMobile'],
  ...['deviceTablet', 'door', 'fileText', 'gauge', 'headset', 'home', 'id', 'key', 'lifebuoy', 'lock'],
  ...['mail', 'phone', 'printer', 'shield', 'shirt', 'shoppingCart', 'speedboat', 'temperature', 'ticket'],
  ...['tool', 'truck', 'userPlus', 'users', 'wifi', 'world'],
] as const;
export type ServiceIconName = (typeof SERVICE_ICONS)[number];

// The drawings are many and none is needed to read the page.
const Drawing = lazy(() => import('./serviceDrawings'));

/** The drawing of a service, or an empty place of the same size. */
export function ServiceIcon({ name, size = 18 }: { name: string | null; size?: number }) {
  if (name === null || !SERVICE_ICONS.some((known) => known === name)) return null;
  const place = <span aria-hidden style={{ display: 'inline-block', width: size, height: size }} />;
  return (
    <Suspense fallback={place}>
      <Drawing name={name as ServiceIconName} size={size} />
    </Suspense>
  );
}
