import autocannon from 'autocannon';
import { createPool, type Pool } from 'mariadb';
import { prepareDemo } from './prepare';
import { median, perSecond, rateOf, report } from './report';
import { signIn, startServer } from './server';

/** Until the compiler of the runtime has seen enough: the rate of a server that has been up for a while is meant. */
const WARM_ROUNDS = 4;
const ROUNDS = 5;
const ROUND_MS = 3_000;
const AT_ONCE = 10;

/** How many answers a second a round of the same request gets. */
async function roundOf(url: string, request: Partial<autocannon.Options> = {}): Promise<number> {
  const { non2xx, errors, duration, ...counts } = await autocannon({
    url,
    connections: AT_ONCE,
    duration: ROUND_MS / 1000,
    ...request,
  });
  if (non2xx + errors > 0) throw new Error(`${url}: ${non2xx} refused, ${errors} failed`);
  return counts['2xx'] / duration;
}

/** The same two rows as a new ticket is, through the driver alone. */
async function createBareTables(pool: Pool): Promise<void> {
  await pool.query('CREATE TABLE bare_tickets LIKE tickets');
  await pool.query(
    `CREATE TABLE bare_journal (id BIGINT PRIMARY KEY AUTO_INCREMENT, position BIGINT UNIQUE, at BIGINT NOT NULL, actorId VARCHAR(40),
     via VARCHAR(20) NOT NULL, type VARCHAR(40) NOT NULL, ticketNumber BIGINT, audience VARCHAR(10) NOT NULL, changes JSON NOT NULL,
     data JSON NOT NULL, INDEX byTicket (ticketNumber, id))`,
  );
}

async function bareTransaction(pool: Pool, changes: string): Promise<void> {
  const connection = await pool.getConnection();
  try {
    await connection.beginTransaction();
    const { insertId } = (await connection.query(
      `INSERT INTO bare_tickets (kind, title, serviceId, teamId, groupId, isConfidential, requesterId, state, priority, impact, urgency, via, place, answers, createdAt, changedAt)
       VALUES ('incident', 'Kiosk', 'kiosk', 'onboard', 'onboard-gates', 0, 'tomas', 'received', 'P2', 'site', 'stopsWork', 'portal', 'Port Alder', '{"what":"Stops"}', 1, 1)`,
    )) as { insertId: bigint };
    await connection.query(
      "INSERT INTO bare_journal (at, actorId, via, type, ticketNumber, audience, changes, data) VALUES (1, 'tomas', 'portal', 'sent', ?, 'requester', ?, '{}')",
      [insertId, changes],
    );
    await connection.commit();
  } finally {
    await connection.release();
  }
}

/** Creating tickets through HTTP against the bare two-row transaction, in alternating rounds. */
export async function benchCreate(): Promise<void> {
  const listo = await prepareDemo();
  const databaseUrl = new URL(process.env.DATABASE_URL!);
  const pool = createPool({
    host: databaseUrl.hostname,
    port: Number(databaseUrl.port),
    user: databaseUrl.username,
    password: databaseUrl.password,
    database: databaseUrl.pathname.slice(1),
    connectionLimit: AT_ONCE,
  });
  await createBareTables(pool);
  const { url, stop } = await startServer();
  const cookie = await signIn(url, 'tomas');
  const answers = {
    site: 'Port Alder',
    kiosk: '3',
    what: 'Stops at “present your card”.',
    impact: 'site',
    urgency: 'stopsWork',
  };
  const body = JSON.stringify({ serviceId: 'kiosk', title: 'Kiosk 3 frozen on payment', answers });
  const [opening] = await listo.db.select<{ changes: object }>(
    "SELECT changes FROM journal WHERE type = 'sent' LIMIT 1",
  );
  const changes = JSON.stringify(opening!.changes);

  const countOf = async (sql: string): Promise<number> =>
    (await listo.db.select<{ count: number }>(sql))[0]!.count;
  const countClocks = () => countOf("SELECT COUNT(*) AS count FROM clocks WHERE targetId = 'resolution'");
  // Those with a plan have its promise instead.
  const countTickets = () =>
    countOf('SELECT COUNT(*) AS count FROM tickets WHERE number NOT IN (SELECT ticketNumber FROM plans)');

  async function createRound(): Promise<number> {
    const before = await countTickets();
    const start = performance.now();
    await roundOf(`${url}/api/v1/tickets`, {
      method: 'POST',
      headers: { Cookie: cookie, 'Content-Type': 'application/json' },
      body,
    });
    const after = await countTickets();
    // A ticket counts when its clocks are set too.
    while ((await countClocks()) < after) await new Promise((resolve) => setTimeout(resolve, 5));
    return ((after - before) * 1000) / (performance.now() - start);
  }
  const rounds: Record<'bare' | 'express' | 'created', number[]> = { bare: [], express: [], created: [] };
  for (let i = 0; i < WARM_ROUNDS; i++) await createRound();
  for (let i = 0; i < ROUNDS; i++) {
    rounds.bare.push(await rateOf(() => bareTransaction(pool, changes), { atOnce: AT_ONCE, ms: ROUND_MS }));
    rounds.express.push(await roundOf(`${url}/healthz`));
    rounds.created.push(await createRound());
  }
  const [bare, express, created] = [median(rounds.bare), median(rounds.express), median(rounds.created)];
  const shareOf = (rate: number): string => `${((100 * rate) / bare).toFixed(1)} % of bare`;
  report('bare two-row transaction, driver, 10 at once', perSecond(bare));
  report('a constant through the HTTP stack, 10 at once', perSecond(express), shareOf(express));
  report('a ticket through HTTP, clocks set, 10 at once', perSecond(created), shareOf(created));
  await stop();
  await pool.end();
  await listo.db.close();
}
