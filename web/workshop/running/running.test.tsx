import { screen } from '@testing-library/react';
import { api } from '../../../contract';
import type { Running } from '../../../contract/running';
import { refuse, standIn } from '../../testing/server';
import { BIA, show } from '../../testing/show';
import { RunningPage } from './RunningPage';

/** How it runs, in words. */
const server = standIn();
const HELDER = { ...BIA, id: 'helder', isAdministrator: true, areas: [...BIA.areas, 'workshop' as const] };
const part = (name: Running['parts'][number]['part'], more: Partial<Running['parts'][number]> = {}) => ({
  ...{ part: name, standing: 'well' as const, waiting: 0, longestMs: 0 },
  ...more,
});
const running = (more: Partial<Running> = {}): Running => ({
  ...{ at: 0, standing: 'well', parts: [part('follows'), part('mail')], cluster: null },
  process: { roles: ['pages', 'work'], sinceMs: 7_200_000, memoryBytes: 209_715_200, streams: 1 },
  cleared: [{ table: 'sessions', days: 30 }],
  ...more,
});
const textOf = (): string => document.body.textContent;

test('all well is said first, with what the process does and what goes by itself', async () => {
  server().on(api.running.get, running());
  await show(<RunningPage />, { me: HELDER });
  await screen.findByRole('heading', { name: 'Everything keeps up.' });
  expect(textOf()).toContain('all sent');
  expect(textOf()).toContain(
    'answers people, does what follows, has run for 2 h, uses 200 MB, tells 1 browser live.',
  );
  expect(textOf()).toContain('Sessions that nobody used: after 30 days');
  expect(textOf()).toContain('single server');
});

test('what does not move stands first, with since when and what to do', async () => {
  const mail = part('mail', { standing: 'stuck', waiting: 3, longestMs: 20 * 60_000 });
  const cluster = { nodes: 3, used: 'node2' };
  server().on(api.running.get, running({ standing: 'stuck', parts: [part('follows'), mail], cluster }));
  await show(<RunningPage />, { me: HELDER, language: 'pt' });
  await screen.findByRole('heading', { name: 'Há algo parado.' });
  const [first] = screen.getAllByRole('row');
  expect(first!.textContent).toContain('3 esperam, o primeiro há 20 min');
  expect(first!.textContent).toContain('O servidor de correio não aceita nada');
  expect(textOf()).toContain('um conjunto de 3 nós; este processo usa node2');
});

test('where it cannot be read that is said, and it can be asked again', async () => {
  server().on(api.running.get, refuse(503, 'notReady'));
  await show(<RunningPage />, { me: HELDER });
  await screen.findByRole('button', { name: /again/i });
});

test('who does not keep the organisation finds nothing here', async () => {
  await show(<RunningPage />, { me: BIA });
  expect(screen.queryByRole('heading', { name: 'Everything keeps up.' })).toBeNull();
});
