import net, { type AddressInfo } from 'node:net';
import { startTestListo, type TestListo } from '../testing/harness';

/**
 * A connection that breaks after the database was told to commit: whether it did is not known, and is looked up. Between
 * the application and its database stands what passes everything on, and breaks off when it is told to.
 */
let app: TestListo;
let between: net.Server;
let breaksOff: 'afterCommit' | 'beforeCommit' | null = null;
beforeAll(async () => {
  const url = new URL(process.env.LISTO_TEST_DATABASE_URL!);
  const [port, host] = [Number(url.port), url.hostname];
  between = net.createServer((client) => {
    const server = net.connect(port, host);
    const end = (): void => {
      client.destroy();
      server.destroy();
    };
    for (const socket of [client, server]) socket.on('error', end).on('close', end);
    server.pipe(client);
    // Of other transactions nothing is broken off.
    let hasTicket = false;
    client.on('data', (piece: Buffer) => {
      hasTicket ||= piece.includes('INSERT INTO tickets');
      const isCommit = piece.includes('COMMIT') && piece.length < 100;
      const how = isCommit && hasTicket ? breaksOff : null;
      if (isCommit) hasTicket = false;
      if (how === null) {
        server.write(piece);
        return;
      }
      breaksOff = null;
      // The database does it, and nobody hears of that; or it is never told.
      server.unpipe(client);
      if (how === 'afterCommit') server.once('data', end).resume().write(piece);
      else end();
    });
  });
  await new Promise<void>((resolve) => between.listen(0, '127.0.0.1', resolve));
  url.port = String((between.address() as AddressInfo).port);
  app = await startTestListo('uncertain', { server: url.href, env: { LISTO_ROLES: 'pages' } });
});
afterAll(async () => {
  await app.end();
  between.close();
});

const REQUEST = {
  serviceId: 'other',
  answers: { site: 'Port Alder', what: 'Broken', impact: 'me', urgency: 'canWait' },
};

test.each(['afterCommit', 'beforeCommit'] as const)(
  'a request under a key is there once where its connection broke off %s',
  async (how) => {
    const tomas = await app.as('tomas');
    breaksOff = how;
    const title = `Broke off ${how}`;
    const { status, body } = await tomas.call(
      'POST',
      '/tickets',
      { ...REQUEST, title },
      { 'Idempotency-Key': how },
    );
    expect(status).toBe(200);
    expect(breaksOff).toBeNull();
    const rows = await app.listo.db.tables.tickets.find({ title });
    expect(rows.map(({ number }) => number)).toEqual([(body as { number: number }).number]);
  },
);

test('without a key it is not done a second time: one is told to look', async () => {
  const tomas = await app.as('tomas');
  breaksOff = 'afterCommit';
  const { status } = await tomas.call('POST', '/tickets', { ...REQUEST, title: 'Without a key' });
  expect(status).toBe(503);
  expect(await app.listo.db.tables.tickets.find({ title: 'Without a key' })).toHaveLength(1);
});
