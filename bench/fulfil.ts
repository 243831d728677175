import { createTicket } from '../server/tickets/create';
import type { SignedIn } from '../server/sessions/viewer';
import { prepareDemo } from './prepare';
import { p95, report } from './report';
import { signIn, startServer } from './server';

const ROUNDS = 6;
const IN_A_ROUND = 40;
const AT_ONCE = 10;
const PLANS = 1_000;

const TRANSFER = {
  ...{ serviceId: 'crew-transfer', title: 'Moves to Port Alder' },
  answers: {
    from: 'Fenwick Sound',
    to: 'Port Alder',
    day: '2027-01-11',
    gear: true,
    size: 's',
    tablet: true,
    berth: true,
  },
};
const KIOSK = {
  ...{ serviceId: 'kiosk', title: 'Kiosk 3 frozen on payment' },
  answers: { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'stopsWork' },
};

/** Raises one kind some at a time. @returns how long each took, in ms */
async function raise(url: string, cookie: string, body: object): Promise<number[]> {
  const times: number[] = [];
  let left = IN_A_ROUND;
  const worker = async (): Promise<void> => {
    while (left-- > 0) {
      const start = performance.now();
      const response = await fetch(`${url}/api/v1/tickets`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json', Cookie: cookie },
        body: JSON.stringify(body),
      });
      await response.arrayBuffer();
      if (response.status !== 200) throw new Error(`raising: ${response.status}`);
      times.push(performance.now() - start);
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, worker));
  return times;
}

/** A request with approvals, a plan and a promise against a plain one; and a thousand plans after a calendar change. */
export async function benchFulfil(): Promise<void> {
  const listo = await prepareDemo();
  const server = await startServer();
  const cookie = await signIn(server.url, 'ana');
  const plain: number[] = [];
  const planned: number[] = [];
  // The first two rounds warm the server up.
  for (let round = 0; round < ROUNDS + 2; round++) {
    const [one, other] = [await raise(server.url, cookie, KIOSK), await raise(server.url, cookie, TRANSFER)];
    if (round < 2) continue;
    plain.push(...one);
    planned.push(...other);
  }
  report('a plain ticket through HTTP, 10 at once, p95', `${p95(plain).toFixed(0)} ms`);
  report(
    'one with approvals, plan and promise, p95',
    `${p95(planned).toFixed(0)} ms`,
    `${(p95(planned) / p95(plain)).toFixed(2)} x the plain one`,
  );

  const [{ count }] = (await listo.db.select<{ count: number }>(
    'SELECT COUNT(*) AS count FROM plans WHERE finishedAt IS NULL',
  )) as [{ count: number }];
  const { name, siteId, language } = (await listo.db.tables.people.findOne({ id: 'ana' }))!;
  const viewer: SignedIn = {
    ...{
      sessionId: '',
      id: 'ana',
      name,
      siteId,
      language,
      teams: [],
      isAdministrator: false,
      mayAskForOthers: true,
    },
  };
  for (let i = count; i < PLANS; i++)
    await createTicket(
      { listo, viewer, actor: { id: 'ana' } },
      { ...TRANSFER, via: 'portal', fileIds: [], alsoToldIds: [] },
    );
  // Those who are asked are told of it first: what is measured is a change to plans that are under way.
  const isTold = async (): Promise<boolean> => {
    const [left] = await listo.db.select<{ left: number }>(
      `SELECT (SELECT COUNT(*) FROM mail_out WHERE state = 'waiting' AND nextAt <= :now) + (SELECT COUNT(*) FROM chat_out WHERE state = 'waiting' AND nextAt <= :now)
         + (SELECT COUNT(*) FROM journal WHERE position IS NULL OR position > (SELECT MIN(position) FROM consumers)) AS \`left\``,
      { now: listo.clock.now() },
    );
    return left!.left === 0;
  };
  const patience = performance.now() + 180_000;
  while (!(await isTold()) && performance.now() < patience)
    await new Promise((resolve) => setTimeout(resolve, 500));
  const helder = await signIn(server.url, 'helder');
  const { spec, version } = (await listo.db.tables.calendars.findOne({ id: 'office' }))!;
  const exceptions = [...spec.exceptions, { date: '2027-01-04', name: 'Storm', windows: [] }];
  const start = performance.now();
  await fetch(`${server.url}/api/v1/calendars/office`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json', Cookie: helder },
    body: JSON.stringify({ version, spec: { ...spec, exceptions } }),
  });
  const isLeft = async (): Promise<boolean> =>
    (
      await listo.db.select("SELECT 1 FROM timers WHERE kind = 'planLook' AND at <= :now LIMIT 1", {
        now: listo.clock.now(),
      })
    ).length > 0;
  while (await isLeft()) await new Promise((resolve) => setTimeout(resolve, 50));
  report(
    `${PLANS.toLocaleString('en')} plans anew after a calendar change`,
    `${((performance.now() - start) / 1000).toFixed(1)} s`,
  );
  await server.stop();
  await listo.db.close();
}
