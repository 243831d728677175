import { setTimeout as delay } from 'node:timers/promises';
import { parseArgs } from 'node:util';
import mariadb from 'mariadb';
import { askCluster } from './control.mjs';
import { giveUp, say } from './say.mjs';

/**
 * Drives a running Listo with its demo people over HTTP and live streams, by the rhythm of a working day, and reports how
 * long each screen's data took. `faults`: on `npm run cluster`, with processes and nodes killed and cut off meanwhile,
 * and a ledger of what was acknowledged.
 */
const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    address: { type: 'string', default: 'http://127.0.0.1:4600' },
    agents: { type: 'string', default: '300' },
    employees: { type: 'string', default: '5000' },
    minutes: { type: 'string', default: '3' },
    kills: { type: 'string', default: '30' },
    'node-kills': { type: 'string', default: '10' },
  },
});
const isFaults = positionals.includes('faults');
const AGENT_EVERY_MS = 12_000;
const EMPLOYEE_EVERY_MS = 600_000;
/** Those who ask while something is killed do so without a pause to think. */
const LEDGER_ASKERS = 6;
const WORDS = ['scanner', 'printer', 'password', 'letter', 'badge', 'radio', 'screen', 'roster'];
const pick = (all) => all[Math.floor(Math.random() * all.length)];

/** How long each screen took, in ms, and what was answered otherwise than asked. */
const taken = new Map();
const failures = new Map();

async function ask(screen, session, method, path, body, headers = {}) {
  const began = performance.now();
  const response = await fetch(`${values.address}/api/v1${path}`, {
    method,
    headers: { Cookie: session, ...(body && { 'Content-Type': 'application/json' }), ...headers },
    ...(body && { body: JSON.stringify(body) }),
  }).catch(() => null);
  const text = await response?.text().catch(() => null);
  if (response?.status === 200) {
    taken.set(screen, [...(taken.get(screen) ?? []), performance.now() - began]);
    return text && JSON.parse(text);
  }
  const name = `${screen}: ${response?.status ?? 'no answer'}`;
  failures.set(name, (failures.get(name) ?? 0) + 1);
  return null;
}

async function signIn(personId) {
  const response = await fetch(`${values.address}/api/v1/session/demo`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ personId }),
  }).catch(() => giveUp(`Nothing answers at ${values.address}. Start it first, or say --address.`));
  return response.headers.getSetCookie()[0].split(';')[0];
}

/** Listens as an open page does; only that it stays open is of interest. */
async function listen(session, isOver) {
  while (!isOver()) {
    const response = await fetch(`${values.address}/api/v1/live`, { headers: { Cookie: session } }).catch(
      () => null,
    );
    try {
      for await (const piece of response?.body ?? []) if (isOver() || piece === null) break;
    } catch {
      // It broke off: it is opened again, as a browser does.
    }
    await delay(500);
  }
}

const REQUEST = {
  serviceId: 'other',
  answers: { site: 'Port Alder', what: 'Broken', impact: 'me', urgency: 'canWait' },
};

async function doAsAgent(session) {
  const list = await ask('worklist', session, 'GET', `/worklists/${pick(['nextUp', 'mine', 'nextUp'])}`);
  const row = list?.rows?.length ? pick(list.rows) : null;
  if (row) {
    await ask('ticket', session, 'GET', `/tickets/${row.number}`);
    if (Math.random() < 0.4)
      await ask('answer', session, 'POST', `/tickets/${row.number}/messages`, {
        ...{ text: 'Looked at it, more soon.', readBy: 'team', fileIds: [] },
      });
  }
  if (Math.random() < 0.3) await ask('find', session, 'GET', `/find?q=${pick(WORDS)}`);
}

async function doAsEmployee(session) {
  await ask('my requests', session, 'GET', '/my/tickets');
  const word = pick(WORDS);
  // As typed: a request at every second letter.
  for (let i = 2; i <= word.length; i += 2)
    await ask('search as typed', session, 'GET', `/ask/search?q=${word.slice(0, i)}`);
  if (Math.random() < 0.3)
    await ask('new request', session, 'POST', '/tickets', { ...REQUEST, title: `Load ${word}` });
}

async function live(session, everyMs, deed, isOver) {
  await delay(Math.random() * everyMs);
  while (!isOver()) {
    await deed(session);
    await delay(everyMs * (0.5 + Math.random()));
  }
}

const at = (sorted, share) => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0;

function report() {
  say('\nscreen                 asked    p50    p95    p99   longest (ms)');
  for (const [screen, all] of [...taken].sort()) {
    const sorted = all.sort((a, b) => a - b);
    const columns = [at(sorted, 0.5), at(sorted, 0.95), at(sorted, 0.99), sorted.at(-1)];
    say(
      `${screen.padEnd(20)} ${String(sorted.length).padStart(7)} ${columns.map((ms) => String(Math.round(ms)).padStart(6)).join(' ')}`,
    );
  }
  for (const [name, count] of failures) say(`not answered as asked: ${name}, ${count} times`);
}

/** Memory and processor of the process that answers, from its own measures. */
async function readProcess() {
  const text = await (await fetch(`${values.address}/metrics`)).text();
  const of = (name) => Number(new RegExp(`^${name} (\\S+)`, 'm').exec(text)?.[1]);
  return {
    bytes: of('process_resident_memory_bytes'),
    cpu: of('process_cpu_seconds_total'),
    at: performance.now(),
  };
}

async function drive() {
  const people = await (await fetch(`${values.address}/api/v1/demo/people`)).json();
  const agents = people.filter(({ teams }) => teams.length > 0);
  const sessionsOf = async (from) =>
    new Map(await Promise.all(from.map(async ({ id }) => [id, await signIn(id)])));
  const [ofAgents, ofAll] = [
    [...(await sessionsOf(agents)).values()],
    [...(await sessionsOf(people)).values()],
  ];
  let isOverNow = false;
  const isOver = () => isOverNow;
  const before = await readProcess();
  const all = [];
  for (let i = 0; i < Number(values.agents); i++) {
    const session = ofAgents[i % ofAgents.length];
    void listen(session, isOver);
    all.push(live(session, AGENT_EVERY_MS, doAsAgent, isOver));
  }
  for (let i = 0; i < Number(values.employees); i++)
    all.push(live(ofAll[i % ofAll.length], EMPLOYEE_EVERY_MS, doAsEmployee, isOver));
  say(`${values.agents} agents and ${values.employees} employees for ${values.minutes} min …`);
  await delay(Number(values.minutes) * 60_000);
  isOverNow = true;
  const after = await readProcess();
  report();
  const seconds = (after.at - before.at) / 1_000;
  say(
    `\nprocess: ${(((after.cpu - before.cpu) / seconds) * 100).toFixed(0)} % of one core, ` +
      `${Math.round(before.bytes / 1e6)} MB before, ${Math.round(after.bytes / 1e6)} MB after`,
  );
  process.exit(0);
}

/** Asks again, under one key, until it is taken. @returns how long that took, in ms */
async function insist(session, title) {
  const began = performance.now();
  while (
    !(await ask('ledger', session, 'POST', '/tickets', { ...REQUEST, title }, { 'Idempotency-Key': title }))
  )
    await delay(100);
  return performance.now() - began;
}

async function faults() {
  const tell = async (...words) => {
    const { text, isDone } = await askCluster(words).catch(() => giveUp('Start it first: npm run cluster'));
    if (!isDone) giveUp(text);
    return text.trim();
  };
  await tell('status');
  const run = Date.now().toString(36);
  const session = await signIn('tomas');
  const ledger = [];
  let longestMs = 0;
  let isOver = false;
  const askers = Array.from({ length: LEDGER_ASKERS }, async (_, asker) => {
    for (let i = 0; !isOver; i++) {
      const title = `Ledger-${run}-${asker}-${i}`;
      longestMs = Math.max(longestMs, await insist(session, title));
      ledger.push(title);
      await delay(20);
    }
  });
  for (let i = 0; i < Number(values.kills); i++) {
    await tell('kill', 'process', String(1 + (i % 2)));
    await delay(300 + Math.random() * 700);
    await tell('start', 'process', String(1 + (i % 2)));
  }
  say(
    `processes killed: ${values.kills}; acknowledged so far: ${ledger.length}; longest stop ${Math.round(longestMs)} ms`,
  );
  for (let i = 0; i < Number(values['node-kills']); i++) {
    await tell('kill', 'node', String(1 + (i % 3)));
    await delay(3_000);
    await tell('start', 'node', String(1 + (i % 3)));
  }
  say(
    `nodes killed: ${values['node-kills']}; acknowledged so far: ${ledger.length}; longest stop ${Math.round(longestMs)} ms`,
  );
  await tell('hold', 'node', '2');
  await delay(30_000);
  await tell('release', 'node', '2');
  isOver = true;
  await Promise.all(askers);
  say(
    `a node was cut off for 30 s; acknowledged: ${ledger.length}; longest stop ${Math.round(longestMs)} ms`,
  );
  await count(await tell('database', '1'), `Ledger-${run}-%`, ledger.length);
  report();
  process.exit(0);
}

async function count(database, pattern, acknowledged) {
  const connection = await mariadb.createConnection(database);
  const one = async (sql) => Number(Object.values((await connection.query(sql, [pattern]))[0])[0]);
  const undone = () =>
    one(
      'SELECT COUNT(*) FROM tickets t WHERE title LIKE ? AND NOT EXISTS (SELECT 1 FROM clocks c WHERE c.ticketNumber = t.number)',
    );
  for (let waited = 0; (await undone()) > 0 && waited < 120_000; waited += 500) await delay(500);
  const distinct = await one('SELECT COUNT(DISTINCT title) FROM tickets WHERE title LIKE ?');
  const all = await one('SELECT COUNT(*) FROM tickets WHERE title LIKE ?');
  say(
    `acknowledged ${acknowledged}: lost ${acknowledged - distinct}, doubled ${all - distinct}, left undone ${await undone()}`,
  );
  await connection.end();
}

await (isFaults ? faults() : drive());
