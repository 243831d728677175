import { askForRecount } from '../server/clocks/askForRecount';
import type { Listo } from '../server/listo';
import type { StoryEntry } from '../demo/story';
import { recountSome } from '../server/recounts/recount';
import { openingChanges } from '../server/tickets/create';
import { NOTHING_DUE, type TicketRecord } from '../server/tickets/model';
import { prepareDemo } from './prepare';
import { p95, report } from './report';
import { signIn, startServer } from './server';

const OPEN = 50_000;
const CHUNK = 1_000;
const MINUTE = 60_000;
/** Sixty agents, each of whom opens a page every ten seconds. */
const EVERY_MS = 10_000 / 60;

/** Open tickets of the last two weeks, taken up after a while. */
export async function addOpenTickets(listo: Listo, count = OPEN): Promise<void> {
  const { tables, select } = listo.db;
  const now = listo.clock.now();
  const [last] = await select<{ number: number }>('SELECT MAX(number) AS number FROM tickets');
  for (let done = 0; done < count; done += CHUNK) {
    const tickets: TicketRecord[] = [];
    const entries: StoryEntry[] = [];
    for (let i = done; i < done + CHUNK; i++) {
      const number = last!.number + 1 + i;
      const createdAt = now - ((i * 7_919) % 20_000) * MINUTE;
      const opened = {
        ...{
          number,
          version: 2,
          kind: 'incident',
          title: `Kiosk ${i} frozen`,
          serviceId: 'kiosk',
          teamId: 'onboard',
        },
        ...{
          groupId: 'onboard-gates',
          isConfidential: false,
          requesterId: 'tomas',
          state: 'received',
          heldFor: null,
        },
        ...{
          priority: `P${(i % 4) + 1}`,
          impact: 'site',
          urgency: 'stopsWork',
          via: 'portal',
          place: 'Port Alder',
        },
        ...{
          answers: {},
          answered: false,
          isDeclined: false,
          createdAt,
          changedAt: createdAt,
          assigneeId: null,
        },
        tightestDueAt: NOTHING_DUE,
      } as unknown as TicketRecord;
      tickets.push({ ...opened, state: 'inWork', assigneeId: 'rui', answered: true });
      const entry = { ticketNumber: number, work: 'ticket', audience: 'requester' } as const;
      entries.push(
        {
          ...entry,
          at: createdAt,
          actorId: 'tomas',
          via: 'portal',
          type: 'sent',
          data: { version: 1, awaitsApproval: false },
          changes: openingChanges(opened),
        },
        {
          ...{ ...entry, at: createdAt + 20 * MINUTE, actorId: 'rui', via: 'desk', type: 'taken' as const },
          data: { version: 2, by: 'agent' as const },
          changes: { assigneeId: { from: null, to: 'rui' }, state: { from: 'received', to: 'inWork' } },
        },
        {
          ...{
            ...entry,
            at: createdAt + 25 * MINUTE,
            actorId: 'rui',
            via: 'desk',
            type: 'answered' as const,
          },
          data: { version: 3 },
          changes: { answered: { from: false, to: true } },
        },
      );
    }
    await tables.tickets.insertAll(tickets);
    await tables.journal.insertAll(entries);
  }
  // They are there, not happening: what follows from them is read by the recount alone.
  await placeAll(listo);
}

/** Gives the new entries their positions and moves every consumer past them. */
async function placeAll(listo: Listo): Promise<void> {
  const { run, select } = listo.db;
  const [before] = await select<{ position: number }>(
    'SELECT COALESCE(MAX(position), 0) AS position FROM journal',
  );
  const [first] = await select<{ id: number }>('SELECT MIN(id) AS id FROM journal WHERE position IS NULL');
  await run('UPDATE journal SET position = :base + id - :first WHERE position IS NULL', {
    base: before!.position + 1,
    first: first!.id,
  });
  await run(
    "INSERT INTO consumers (name, position) VALUES ('sequencer', 0) ON DUPLICATE KEY UPDATE position = position",
  );
  await run('UPDATE consumers SET position = (SELECT MAX(position) FROM journal)');
}

/** How long worklist pages take while something goes on. */
function watchPages(url: string, cookie: string): () => Promise<number> {
  const opened: Promise<number>[] = [];
  async function open(): Promise<number> {
    const start = performance.now();
    const response = await fetch(`${url}/api/v1/worklists/nextUp`, { headers: { Cookie: cookie } });
    await response.arrayBuffer();
    if (response.status !== 200) throw new Error(`worklist: ${response.status}`);
    return performance.now() - start;
  }
  const opening = setInterval(() => opened.push(open()), EVERY_MS);
  return async () => {
    clearInterval(opening);
    return p95(await Promise.all(opened));
  };
}

const untilCounted = async (listo: Listo): Promise<void> => {
  const { select } = listo.db;
  while ((await select('SELECT 1 FROM recounts WHERE finishedAt IS NULL LIMIT 1')).length > 0)
    await new Promise((resolve) => setTimeout(resolve, 50));
};

/** Every due instant anew after a calendar change, with the application answering meanwhile. */
export async function benchRecount(): Promise<void> {
  const listo = await prepareDemo();
  await addOpenTickets(listo);
  // The tickets above have no clocks yet.
  await listo.db.transaction((tx) => askForRecount({ listo, tx }, 'bench'));
  while (await recountSome(listo));
  // Nobody waits for the notices of their past.
  const given = ['late', '50', '75', '80', '90'].map(
    (what) => `CONCAT(work, '|', targetId, '|${what}|', nextAt)`,
  );
  await listo.db.run(
    `UPDATE clocks SET fired = JSON_ARRAY(${given.join()}), owed = '[]', nextAt = NULL WHERE nextAt <= :now`,
    { now: listo.clock.now() },
  );
  const server = await startServer();
  const helder = await signIn(server.url, 'helder');
  const vasco = await signIn(server.url, 'vasco');
  async function changeCalendar(toHour: string): Promise<number> {
    const { spec, version } = (await listo.db.tables.calendars.findOne({ id: 'terminals' }))!;
    const weekly = Object.fromEntries(
      Object.keys(spec.weekly).map((day) => [day, [{ from: '05:30', to: toHour }]]),
    );
    const start = performance.now();
    const response = await fetch(`${server.url}/api/v1/calendars/terminals`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json', Cookie: helder },
      body: JSON.stringify({ version, spec: { ...spec, weekly } }),
    });
    if (response.status !== 200) throw new Error(await response.text());
    await untilCounted(listo);
    return performance.now() - start;
  }
  await changeCalendar('22:30');
  const idle = watchPages(server.url, vasco);
  await new Promise((resolve) => setTimeout(resolve, 10_000));
  const idleP95 = await idle();
  const busy = watchPages(server.url, vasco);
  const took = await changeCalendar('22:00');
  const busyP95 = await busy();
  const [recount] = await listo.db.select<{ counted: number; moved: number }>(
    'SELECT counted, moved FROM recounts ORDER BY id DESC LIMIT 1',
  );
  report(
    `every clock of ${recount!.counted.toLocaleString('en')} open tickets anew`,
    `${(took / 1000).toFixed(1)} s`,
    `${recount!.moved.toLocaleString('en')} due instants moved`,
  );
  report(
    'a worklist page of sixty agents meanwhile, p95',
    `${busyP95.toFixed(0)} ms`,
    `${(busyP95 / idleP95).toFixed(2)} x idle (${idleP95.toFixed(0)} ms)`,
  );
  await server.stop();
  await listo.db.close();
}
