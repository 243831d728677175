import { nanoid } from 'nanoid';
import { prepareDemo } from './prepare';
import { report } from './report';
import { signIn, startServer } from './server';

const TALKS = 200;
/** What comes in a second, with all of them in talk. */
const A_SECOND = 10;
const WAIT_MS = 60_000;

const at = (sorted: number[], share: number): number =>
  sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? NaN;

/** Does something for each, at an even pace: people do not wait for each other. */
async function each<T>(all: T[], work: (one: T) => Promise<void>): Promise<void> {
  const began = performance.now();
  await Promise.all(
    all.map(async (one, i) => {
      const wait = began + (1_000 * i) / A_SECOND - performance.now();
      await new Promise((resolve) => setTimeout(resolve, wait));
      await work(one);
    }),
  );
}

async function post(url: string, cookie: string, path: string, body: object): Promise<void> {
  const answer = await fetch(url + path, {
    method: 'POST',
    headers: { Cookie: cookie, 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  });
  if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
}

/** How long what is said in chat takes to a ticket and back, with many tickets in talk. Times are those of the rows. */
export async function benchChat(): Promise<void> {
  const listo = await prepareDemo();
  const { tables, select } = listo.db;
  // What employees ask here is the onboard team's, whose room has its cards.
  await tables.chatRooms.update({ roomId: 'desk' }, { serviceId: 'kiosk' });
  process.env.LISTO_SIGN_IN_LIMIT = '1000';
  const server = await startServer();
  const people = await select<{ id: string }>(
    "SELECT id FROM people WHERE id LIKE 'p0%' ORDER BY id LIMIT :limit",
    {
      limit: TALKS,
    },
  );
  const cookies = new Map<string, string>();
  for (const { id } of people) cookies.set(id, await signIn(server.url, id));
  const first = (await select<{ number: number }>('SELECT MAX(number) AS number FROM tickets'))[0]!.number;

  /** Waits until a reading has one row for each talk, and reports its times. */
  async function measure(what: string, sql: string): Promise<void> {
    const deadline = performance.now() + WAIT_MS;
    let rows: { ms: number }[];
    do {
      await new Promise((resolve) => setTimeout(resolve, 200));
      rows = await select<{ ms: number }>(sql, { first });
    } while (rows.length < TALKS && performance.now() < deadline);
    const times = rows.map(({ ms }) => ms).sort((a, b) => a - b);
    report(
      what,
      `p95 ${at(times, 0.95)} ms`,
      `p50 ${at(times, 0.5)} ms, most ${times.at(-1)} ms, ${times.length} of ${TALKS}`,
    );
  }

  await each(people, ({ id }) =>
    post(server.url, cookies.get(id)!, '/stand-in/rooms/rooms/desk/messages', {
      text: `Kiosk ${id} is frozen on payment`,
      key: nanoid(),
    }),
  );
  await measure(
    'a message in a room to the card in the team’s room',
    `SELECT c.at - s.at AS ms FROM chat_marks ms JOIN room_messages s ON s.id = ms.messageId
     JOIN chat_marks mc ON mc.ticketNumber = ms.ticketNumber AND mc.role = 'card' JOIN room_messages c ON c.id = mc.messageId
     WHERE ms.role = 'source' AND ms.ticketNumber > :first`,
  );
  const numbers = await select<{ number: number }>('SELECT number FROM tickets WHERE number > :first', {
    first,
  });
  const agent = await signIn(server.url, 'rui');
  await each(numbers, ({ number }) =>
    post(server.url, agent, `/api/v1/tickets/${number}/messages`, {
      ...{ text: 'Which lamp is on?', readBy: 'requester', links: [], fileIds: [] },
    }),
  );
  await measure(
    'an answer on the ticket to the requester’s direct talk',
    `SELECT r.at - m.at AS ms FROM messages m JOIN chat_marks w ON w.wordsId = m.id AND w.role = 'words'
     JOIN room_messages r ON r.id = w.messageId JOIN rooms o ON o.id = r.roomId AND o.kind = 'listo' WHERE m.ticketNumber > :first AND m.isByTeam`,
  );
  const roots = await select<{ messageId: string; roomId: string; personId: string }>(
    "SELECT messageId, roomId, personId FROM chat_marks WHERE role = 'direct' AND ticketNumber > :first",
    { first },
  );
  await each(roots, ({ messageId, roomId, personId }) =>
    post(server.url, cookies.get(personId)!, `/stand-in/rooms/rooms/${roomId}/messages`, {
      ...{ text: 'The red one', threadId: messageId, key: nanoid() },
    }),
  );
  await measure(
    'the requester’s answer in direct talk to the ticket',
    `SELECT m.at - r.at AS ms FROM messages m JOIN chat_marks w ON w.wordsId = m.id AND w.role = 'words'
     JOIN room_messages r ON r.id = w.messageId AND r.byId IS NOT NULL WHERE m.ticketNumber > :first AND NOT m.isByTeam AND m.via = 'directMessage'`,
  );
  await server.stop();
  await listo.db.close();
}
