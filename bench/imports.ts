import { prepareDemo } from './prepare';
import { report } from './report';
import { signIn, startServer } from './server';

const ROWS = 200_000;
const WRITTEN = 2_000;

/** A table of tickets from another program: how long until it is looked at, checked, and written. */
export async function benchImports(): Promise<void> {
  const listo = await prepareDemo();
  const server = await startServer();
  const headers = { Cookie: await signIn(server.url, 'rui') };
  const tableOf = (rows: number): Blob =>
    new Blob([
      Array.from({ length: rows + 1 }, (_, i) =>
        i === 0 ? 'Subject;Caller;Description' : `Turnstile ${i} sticks;tomas;"Half way, ""then"" stuck"`,
      ).join('\n'),
    ]);
  const send = async (table: Blob): Promise<string> => {
    const body = new FormData();
    body.append('file', table, 'old.csv');
    const response = await fetch(`${server.url}/api/v1/imports`, { method: 'POST', headers, body });
    return ((await response.json()) as { id: string }).id;
  };
  const reading = {
    mapping: {
      title: { column: 0 },
      requester: { column: 1 },
      words: { column: 2 },
      service: { always: 'kiosk' },
    },
    names: { impact: {}, urgency: {} },
  };
  const post = (address: string): Promise<Response> =>
    fetch(`${server.url}/api/v1/imports/${address}`, {
      method: 'POST',
      headers: { ...headers, 'Content-Type': 'application/json' },
      body: JSON.stringify(reading),
    });
  const took = async <T>(work: () => Promise<T>): Promise<[T, number]> => {
    const start = performance.now();
    return [await work(), (performance.now() - start) / 1000];
  };
  const [id, looking] = await took(() => send(tableOf(ROWS)));
  const [checked, checking] = await took(
    async () => (await post(`${id}/check`)).json() as Promise<{ good: number }>,
  );
  report(
    `sending ${ROWS.toLocaleString('en')} rows until their columns are shown`,
    `${looking.toFixed(1)} s`,
  );
  report(`checking them (${checked.good.toLocaleString('en')} fit)`, `${checking.toFixed(1)} s`);
  const small = await send(tableOf(WRITTEN));
  await post(`${small}/start`);
  const [, writing] = await took(async () => {
    for (;;) {
      const row = await listo.db.tables.imports.findOne({ id: small });
      if (row?.state === 'done') return;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  });
  report('writing them in the background', `${Math.round(WRITTEN / writing)} tickets a second`);
  await server.stop();
  await listo.db.close();
}
