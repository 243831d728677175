import type { TeamFigures } from '../../contract/figures';
import type { Me } from '../../contract/session';
import type { Ticket, TicketRow } from '../../contract/tickets';
import { startTestListo, type Person, type TestListo } from '../testing/harness';

/** Whoever sets Listo up sees what that does, as a reader: nothing in confidence, and nothing to act on. */
let app: TestListo;
let [helder, rui, tomas]: Person[] = [];
let number: number;
beforeAll(async () => {
  app = await startTestListo('readers');
  [helder, rui, tomas] = await Promise.all(['helder', 'rui', 'tomas'].map(app.as));
  const answers = { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'canWait' };
  const body = { serviceId: 'kiosk', title: 'Kiosk 3 frozen', answers };
  ({ number } = (await tomas!.call('POST', '/tickets', body)).body as { number: number });
  await rui!.call('POST', `/tickets/${number}/messages`, { text: 'The cable again', readBy: 'team' });
});
afterAll(() => app.end());

test('an administrator without a team has the Desk, what is known, measures and the workshop', async () => {
  const { me } = (await helder!.call('GET', '/session')).body as { me: Me };
  expect(me).toMatchObject({ isAdministrator: true, teams: [] });
  expect(me.areas).toEqual(['ask', 'desk', 'rooms', 'estate', 'knowledge', 'measures', 'workshop']);
});

test('they read tickets with their notes, lists, people and how all open teams stand', async () => {
  const ticket = (await helder!.call('GET', `/tickets/${number}`)).body as Ticket;
  expect(ticket.rights).toEqual(['read', 'readNotes']);
  expect(ticket.entries.some(({ message }) => message?.text === 'The cable again')).toBe(true);
  const { rows } = (await helder!.call('GET', '/worklists/everything?groupBy=none')).body as {
    rows: TicketRow[];
  };
  expect(rows.map((row) => row.number)).toContain(number);
  const teams = (await helder!.call('GET', '/figures/today')).body as TeamFigures[];
  const open = await app.listo.db.tables.teams.find({ isConfidential: false });
  expect(teams.map(({ id }) => id).sort()).toEqual(open.map(({ id }) => id).sort());
  // Their numbers are those of the lists that they open.
  expect(teams.find(({ id }) => id === 'onboard')!.open).toBeGreaterThan(0);
  for (const address of ['/people/tomas', '/worklists', '/surges', `/tickets/${number}/similar`])
    expect([address, (await helder!.call('GET', address)).status]).toEqual([address, 200]);
});

test('they act on nothing, and what is in confidence is not theirs to read', async () => {
  const { version } = (await helder!.call('GET', `/tickets/${number}`)).body as Ticket;
  const take = { name: 'take', by: 'agent', version, input: {} };
  expect((await helder!.call('POST', `/tickets/${number}/moves`, take)).status).toBe(403);
  const note = { text: 'From above', readBy: 'team' };
  expect((await helder!.call('POST', `/tickets/${number}/messages`, note)).status).toBe(403);
  await app.listo.db.tables.tickets.update({ number }, { isConfidential: true });
  expect((await helder!.call('GET', `/tickets/${number}`)).status).toBe(404);
  const { rows } = (await helder!.call('GET', '/worklists/everything?groupBy=none')).body as {
    rows: TicketRow[];
  };
  expect(rows.map((row) => row.number)).not.toContain(number);
});
