import { setTimeout } from 'node:timers/promises';
import type { RuleTrial } from '../contract/rules';
import type { Listo } from '../server/listo';
import type { RuleRow } from '../server/rules/model';
import { prepareDemo } from './prepare';
import { median, perSecond, report } from './report';
import { signIn, startServer } from './server';

const ROUNDS = 8;
const IN_A_ROUND = 40;
const AT_ONCE = 5;
const RULES = 200;
const TRIAL_DAYS = 90;

const KIOSK = {
  ...{ serviceId: 'kiosk', title: 'Kiosk 3 frozen on payment' },
  answers: { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'stopsWork' },
};

/** Rules all of which hear of what comes and none of which fits; one in four asks for words. */
const NONE_FITS: RuleRow[] = Array.from({ length: RULES }, (_, i) => ({
  ...{ id: `bench${i}`, name: { en: `Rule ${i}`, pt: `Regra ${i}` }, teamId: null, ownerId: 'helder' },
  ...{ position: 100 + i, isOn: true, version: 1, failures: 0, failedAt: null, failedWith: null },
  ...{ changedAt: 1, onSince: 1 },
  definition: {
    trigger: { on: 'received' as const },
    provided:
      i % 4 === 0
        ? { field: 'title', op: 'hasAny' as const, value: [`nothing${i}`] }
        : { field: 'serviceId', op: 'is' as const, value: `s${i}` },
    effects: [{ do: 'set' as const, field: 'priority', to: 'P1' }],
    isLast: false,
  },
}));

/** Raises tickets some at a time, then waits until rules have gone through them all. */
async function round(listo: Listo, url: string, cookie: string): Promise<{ seen: number[]; done: number }> {
  const seen: number[] = [];
  let left = IN_A_ROUND;
  const start = performance.now();
  const worker = async (): Promise<void> => {
    while (left-- > 0) {
      const sent = performance.now();
      const answer = await fetch(`${url}/api/v1/tickets`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json', Cookie: cookie },
        body: JSON.stringify(KIOSK),
      });
      await answer.arrayBuffer();
      if (answer.status !== 200) throw new Error(`raising: ${answer.status}`);
      seen.push(performance.now() - sent);
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, worker));
  const isDone = async (): Promise<boolean> => {
    const [row] = await listo.db.select<{ left: number }>(
      `SELECT (SELECT COUNT(*) FROM journal WHERE position IS NULL OR position >
         (SELECT position FROM consumers WHERE name = 'rules')) AS \`left\``,
    );
    return row!.left === 0;
  };
  while (!(await isDone())) await setTimeout(2);
  return { seen, done: performance.now() - start };
}

/** A ticket with rules that are on and do not fit against one without any; and a rule tried over the past. */
export async function benchRuled(): Promise<void> {
  const listo = await prepareDemo();
  const { rules } = listo.db.tables;
  await rules.remove({});
  const server = await startServer();
  const cookie = await signIn(server.url, 'ana');
  const without: Awaited<ReturnType<typeof round>>[] = [];
  const within: Awaited<ReturnType<typeof round>>[] = [];
  // The first two rounds warm the server up.
  for (let i = 0; i < ROUNDS + 2; i++) {
    const plain = await round(listo, server.url, cookie);
    await rules.insertAll(NONE_FITS);
    const ruled = await round(listo, server.url, cookie);
    await rules.remove({});
    if (i < 2) continue;
    without.push(plain);
    within.push(ruled);
  }
  const [seenWithout, seenWithin] = [without, within].map((all) => median(all.flatMap(({ seen }) => seen)));
  const [doneWithout, doneWithin] = [without, within].map((all) => median(all.map(({ done }) => done)));
  report('a ticket until its requester sees it, median', `${seenWithout!.toFixed(1)} ms`);
  report(
    `  with ${RULES} rules on, none of which fits`,
    `${seenWithin!.toFixed(1)} ms`,
    `${(seenWithin! / seenWithout!).toFixed(2)} x without`,
  );
  report(`${IN_A_ROUND} tickets until rules have gone through them`, `${doneWithout!.toFixed(0)} ms`);
  report(
    `  with ${RULES} rules on`,
    `${doneWithin!.toFixed(0)} ms`,
    `${(doneWithin! / doneWithout!).toFixed(2)} x without`,
  );

  const helder = await signIn(server.url, 'helder');
  const { trigger, provided, effects, isLast } = NONE_FITS[0]!.definition;
  const rule = {
    ...{ name: { en: 'Tried', pt: 'Tentada' }, teamId: null },
    trigger,
    provided,
    effects,
    isLast,
  };
  const start = performance.now();
  const answer = await fetch(`${server.url}/api/v1/rules/trials`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Cookie: helder },
    body: JSON.stringify({ id: null, rule, days: TRIAL_DAYS }),
  });
  const { entries } = (await answer.json()) as RuleTrial;
  const seconds = (performance.now() - start) / 1_000;
  report(`a rule tried over ${entries.toLocaleString('en')} entries`, `${seconds.toFixed(2)} s`);
  report('  that is, entries', perSecond(entries / seconds));
  await server.stop();
}
