import { prepareDemo } from './prepare';
import { report } from './report';
import { signIn, startServer, type BenchServer } from './server';
import { readCandidates } from '../server/conversations/waits';
import { chooseForOffer } from '../core/routing';
import { lookAtConversations } from '../server/conversations/offers';
import type { Listo } from '../server/listo';

const AGENTS = 60;
const CONVERSATIONS = 300;
const CAPACITY = 5;
const KILLS = 20;
/** They come evenly over so long. */
const COME_MS = 60_000;
const KILL_EVERY_MS = 4_000;
const LOOK_MS = 1_000;
const ANYWAY_MS = 10_000;
const MOST_MS = 200_000;
const DECISIONS = 200;
const LINE = 'desk';

const sleep = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** Two processes, of which now one and now the other is gone: people are answered by whichever is there. */
class Processes {
  servers: (BenchServer | null)[] = [];
  async start(): Promise<void> {
    this.servers = [await startServer(), await startServer()];
  }
  /** Kills one at random and starts another in its place. */
  async replaceOne(): Promise<void> {
    const i = Math.random() < 0.5 ? 0 : 1;
    const gone = this.servers[i]!;
    this.servers[i] = null;
    await gone.kill();
    this.servers[i] = await startServer();
  }
  url(): string {
    const there = this.servers.filter((server) => server !== null);
    return there[Math.floor(Math.random() * there.length)]!.url;
  }
  async stop(): Promise<void> {
    for (const server of this.servers) await server?.stop();
  }
}

type Answer = { status: number; body: unknown } | null;

/** What someone asks of a process. @returns null where it went away before it had answered */
async function call(
  processes: Processes,
  cookie: string,
  method: string,
  path: string,
  body?: object,
): Promise<Answer> {
  try {
    const response = await fetch(`${processes.url()}/api/v1${path}`, {
      method,
      headers: { Cookie: cookie, ...(body && { 'Content-Type': 'application/json' }) },
      ...(body && { body: JSON.stringify(body) }),
    });
    return { status: response.status, body: await response.json().catch(() => null) };
  } catch {
    return null;
  }
}

/** An agent whose Desk is open: takes what is offered and answers, through whichever process is there. */
async function beAgent(processes: Processes, cookie: string, isOver: () => boolean): Promise<void> {
  const asAvailable = { presence: 'available', capacity: CAPACITY };
  while ((await call(processes, cookie, 'PUT', '/me/conversations', asAvailable))?.status !== 200)
    await sleep(500);
  let isNews = true;
  const stayOpen = async (): Promise<void> => {
    while (!isOver()) {
      const stop = new AbortController();
      try {
        const response = await fetch(`${processes.url()}/api/v1/conversations/live?at=desk`, {
          headers: { Cookie: cookie },
          signal: stop.signal,
        });
        for await (const part of response.body!) {
          if (isOver()) stop.abort();
          isNews ||= Buffer.from(part).includes('data:');
        }
      } catch {
        await sleep(500);
      }
    }
  };
  const open = stayOpen();
  let looked = 0;
  while (!isOver()) {
    await sleep(LOOK_MS);
    // A Desk reads anew when it hears of something, and now and then.
    if (!isNews && performance.now() - looked < ANYWAY_MS) continue;
    isNews = false;
    looked = performance.now();
    const answer = await call(processes, cookie, 'GET', '/desk/conversations');
    const rows = (answer?.body as { rows?: { id: string; isOfferedToMe: boolean }[] } | null)?.rows ?? [];
    for (const { id } of rows.filter(({ isOfferedToMe }) => isOfferedToMe)) {
      const taken = await call(processes, cookie, 'POST', `/conversations/${id}/accept`, {});
      if (taken?.status === 200)
        await call(processes, cookie, 'POST', `/conversations/${id}/entries`, { text: 'Good day' });
    }
  }
  await open;
}

/** An employee who asks for a person until they are in line. @returns whether it was said that they are */
async function beEmployee(processes: Processes, cookie: string, wait: number): Promise<string> {
  await sleep(wait);
  for (;;) {
    const answer = await call(processes, cookie, 'POST', '/conversations', {
      lineId: LINE,
      words: 'I cannot sign in to the roster',
    });
    if (answer?.status === 200 || answer?.status === 201) return (answer.body as { id: string }).id;
    await sleep(500);
  }
}

/** How many agents have more than they can have at once. */
async function countOverfull({ db }: Listo): Promise<number> {
  const rows = await db.select(
    `SELECT c.agentId FROM conversations c JOIN chat_agents a ON a.personId = c.agentId WHERE c.state = 'open'
     GROUP BY c.agentId, a.capacity HAVING COUNT(*) > a.capacity`,
  );
  return rows.length;
}

/** A share of the times takes at most so long. */
const at = (times: number[], share: number): number =>
  [...times].sort((a, b) => a - b)[Math.floor(times.length * share)]!;

/** How often someone was given a conversation that another one still had. */
async function countHeldByTwo({ db }: Listo): Promise<number> {
  const entries = await db.select<{ conversationId: string; type: string }>(
    "SELECT conversationId, type FROM conversation_entries WHERE type IN ('taken', 'handed', 'waiting', 'ended') ORDER BY place",
  );
  const held = new Set<string>();
  let twice = 0;
  for (const { conversationId, type } of entries)
    if (type !== 'taken') held.delete(conversationId);
    else if (held.has(conversationId)) twice++;
    else held.add(conversationId);
  return twice;
}

/** The times of deciding whom one more conversation is offered to, with all others under way, and of offering it. */
async function timeOffers(
  listo: Listo,
  agentIds: string[],
  personId: string,
): Promise<{ deciding: number[]; offering: number[] }> {
  const { tables, run } = listo.db;
  const line = (await tables.chatLines.findOne({ id: LINE }))!;
  const [model] = await tables.conversations.find({ lineId: LINE }, { limit: 1 });
  // Everyone has a place free.
  await run('UPDATE chat_agents SET capacity = :capacity', { capacity: CAPACITY + 10 });
  const deciding: number[] = [];
  const offering: number[] = [];
  for (let i = 0; i < DECISIONS; i++) {
    const now = listo.clock.now();
    await run('UPDATE chat_agents SET seenAt = :now WHERE personId IN (:agentIds)', { now, agentIds });
    const id = `bench${i}`;
    await tables.conversations.insert({
      ...model!,
      ...{ id, personId, state: 'waiting', agentId: null, offeredTo: null, offeredAt: null, passedOver: [] },
      ...{ startedAt: now, lineAt: now, personSaidAt: now, agentSaidAt: null, version: 1 },
    });
    const start = performance.now();
    const { personId: chosen } = chooseForOffer(await readCandidates(listo, line), line.skill, []);
    if (chosen === null) throw new Error('nobody was chosen');
    deciding.push(performance.now() - start);
    const began = performance.now();
    await lookAtConversations(listo);
    offering.push(performance.now() - began);
    const row = await tables.conversations.findOne({ id });
    if (row?.state !== 'offered') throw new Error('it was not offered');
    await tables.conversations.remove({ id });
  }
  return { deciding, offering };
}

/** Live conversations with processes that die: none is lost, none is held by two. */
export async function benchConversations(): Promise<void> {
  process.env.LISTO_SIGN_IN_LIMIT = '10000';
  // Processes that begin at different times tell the same time by the real clock alone; the line is open at any hour.
  delete process.env.LISTO_CLOCK_STARTS_AT;
  const listo = await prepareDemo();
  const { tables, select } = listo.db;
  const people = await select<{ id: string }>(
    "SELECT id FROM people WHERE id LIKE 'p%' AND leftAt IS NULL AND id NOT IN (SELECT personId FROM team_members) ORDER BY id LIMIT :limit",
    { limit: AGENTS + CONVERSATIONS + 1 },
  );
  const ids = people.map(({ id }) => id);
  const [agentIds, employeeIds] = [ids.slice(0, AGENTS), ids.slice(AGENTS, AGENTS + CONVERSATIONS)];
  const line = (await tables.chatLines.findOne({ id: LINE }))!;
  await tables.chatLines.update({ id: LINE }, { skill: null });
  await tables.teams.update({ id: line.teamId }, { calendarId: 'ships' });
  await tables.members.insertAll(
    agentIds.map((personId) => ({
      ...{ teamId: line.teamId, personId, role: 'agent' as const },
      ...{ groupId: null, capacity: null, lastGivenAt: null },
    })),
  );
  const processes = new Processes();
  await processes.start();
  const cookies = new Map<string, string>();
  for (const id of [...agentIds, ...employeeIds]) cookies.set(id, await signIn(processes.url(), id));
  let isOver = false;
  const agents = agentIds.map((id) => beAgent(processes, cookies.get(id)!, () => isOver));
  const asking = Promise.all(
    employeeIds.map((id, i) => beEmployee(processes, cookies.get(id)!, (i * COME_MS) / CONVERSATIONS)),
  );
  for (let i = 0; i < KILLS; i++) {
    const next = sleep(KILL_EVERY_MS);
    await processes.replaceOne();
    await next;
  }
  const said = await asking;
  const deadline = performance.now() + MOST_MS;
  const countTaken = async (): Promise<number> =>
    (
      await select<{ count: number }>(
        "SELECT COUNT(*) AS count FROM conversations WHERE id IN (:said) AND state = 'open' AND agentId IS NOT NULL",
        { said },
      )
    )[0]!.count;
  while ((await countTaken()) < said.length && performance.now() < deadline) await sleep(500);
  const taken = await countTaken();
  isOver = true;
  await processes.stop();
  await Promise.all(agents);
  report(
    `${CONVERSATIONS} conversations, ${AGENTS} agents, ${KILLS} processes killed`,
    `${taken} held`,
    `${new Set(said).size - taken} lost, ${await countHeldByTwo(listo)} held by two, ${await countOverfull(listo)} agents with too many`,
  );
  const { deciding, offering } = await timeOffers(listo, agentIds, ids.at(-1)!);
  report(
    `deciding whom one more is offered to, ${CONVERSATIONS} under way`,
    `p99 ${at(deciding, 0.99).toFixed(1)} ms`,
    `p50 ${at(deciding, 0.5).toFixed(1)} ms`,
  );
  report(
    'the same with a look at all others and the offer written',
    `p99 ${at(offering, 0.99).toFixed(1)} ms`,
    `p50 ${at(offering, 0.5).toFixed(1)} ms`,
  );
  await listo.db.close();
}
