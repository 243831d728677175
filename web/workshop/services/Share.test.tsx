import { screen } from '@testing-library/react';
import { api } from '../../../contract';
import { standIn } from '../../testing/server';
import { show } from '../../testing/show';
import '../../messages/servicesWords';
import { Share } from './Share';

/** How a service is handed on: its address, its code, and the frame within another page. */
const server = standIn();

async function open(embedOrigins: string[]): Promise<void> {
  server().on(api.teams.sites, []);
  const shared = { id: 'kiosk', title: 'A “kiosk” "4"', audience: 1_402, embedOrigins };
  await show(<Share {...shared} onClose={() => undefined} />);
  await screen.findByText(/It opens for 1,?402 people/);
}

test('where no page may show it, that is said beside the frame, with what sets it', async () => {
  await open([]);
  expect(screen.getByText(/No other page may show it yet.*LISTO_EMBED_ORIGINS/)).toBeTruthy();
});

test('where pages may, they are named; a title with quotation marks does not break the frame', async () => {
  await open(['https://intranet.solvarra.example']);
  expect(screen.getByText(/^Pages of https:\/\/intranet\.solvarra\.example may show it/)).toBeTruthy();
  const frame = screen.getByText(/<iframe/).textContent;
  const parsed = new DOMParser().parseFromString(frame, 'text/html').querySelector('iframe')!;
  expect(parsed.title).toBe('A “kiosk” "4"');
  expect(parsed.getAttribute('src')).toBe(`${window.location.origin}/embed/kiosk`);
});
