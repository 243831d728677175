import { prepareDemo } from './prepare';
import { p95, report } from './report';
import { seedTickets } from './seed';
import { signIn, startServer } from './server';

const ROUNDS = 15;
const ASKED = ['13315', 'kiosk fro', 'bridge tab', 'scanner', 'gate scr', 'turnst', 'zzz'];

/** The palette's search and what is like a ticket, over a million tickets (or as many as LISTO_BENCH_TICKETS says). */
export async function benchFind(): Promise<void> {
  const listo = await prepareDemo();
  const { tickets } = await seedTickets(listo, Number(process.env.LISTO_BENCH_TICKETS ?? 1_000_000));
  const server = await startServer();
  const headers = { Cookie: await signIn(server.url, 'rui') };
  const ask = async (addresses: string[]): Promise<string> => {
    const took: number[] = [];
    for (let i = 0; i < ROUNDS; i++)
      for (const address of addresses) {
        const start = performance.now();
        const response = await fetch(`${server.url}/api/v1${address}`, { headers });
        await response.json();
        // The first round reads what is not in memory yet.
        if (i > 0) took.push(performance.now() - start);
      }
    return `${p95(took).toFixed(1)} ms`;
  };
  report(
    `finding by number and title, ${tickets.toLocaleString('en')} tickets: p95`,
    await ask(ASKED.map((q) => `/find?q=${encodeURIComponent(q)}`)),
    'wanted: under 50 ms',
  );
  const rows = await listo.db.select<{ number: number }>(
    "SELECT number FROM tickets WHERE teamId = 'onboard' AND state = 'received' ORDER BY number LIMIT 12",
  );
  report(
    'what is like a ticket: p95',
    await ask(rows.map(({ number }) => `/tickets/${number}/similar`)),
    'wanted: under 150 ms',
  );
  await server.stop();
  await listo.db.close();
}
