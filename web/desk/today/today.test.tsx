import { screen, within } from '@testing-library/react';
import { api } from '../../../contract';
import { both } from '../../testing/things';
import { standIn } from '../../testing/server';
import { show } from '../../testing/show';
import { TodayPage } from './TodayPage';

/** The Desk's first page. */
const server = standIn();
const surge = (numbers: number[]) => ({
  ...{ serviceId: 'gate-scanner', service: both('A gate scanner does not read'), count: numbers.length },
  ...{ usual: 0.5, chance: 0.0001, since: Date.now() - 3_600_000, numbers },
});
const at = (surges: ReturnType<typeof surge>[]) =>
  server()
    .on(api.worklists.page, { rows: [], next: null, total: { count: 0, isMore: false } })
    .on(api.figures.today, [])
    .on(api.people.teams, [])
    .on(api.surge.list, { surges, alarmRate: 0.01 });

test('more of one kind than usual stands on it, with the way to those tickets', async () => {
  at([surge([41, 42, 43])]);
  await show(<TodayPage />);
  const band = (await screen.findByText(/A gate scanner does not read/)).closest('div')!;
  const where = new URL(
    within(band).getByRole('link', { name: /Show/ }).getAttribute('href')!,
    'http://listo.example',
  ).searchParams.get('where');
  expect(JSON.parse(where!)).toEqual({ field: 'number', op: 'in', value: [41, 42, 43] });
});

test('one alone is none', async () => {
  at([surge([41])]);
  await show(<TodayPage />);
  await screen.findByRole('heading', { level: 1 });
  expect(screen.queryByText(/A gate scanner does not read/)).toBeNull();
});
