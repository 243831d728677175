import { EventEmitter } from 'node:events';
import type { Request, Response } from 'express';
import { createTraffic } from './traffic';

/** Requests that are being answered, so many at once. @returns what answers them */
function ask(
  traffic: ReturnType<typeof createTraffic>,
  count: number,
  originalUrl = '/api/v1/tickets',
): () => void {
  const responses = Array.from({ length: count }, () => new EventEmitter());
  for (const response of responses)
    traffic.count({ originalUrl } as Request, response as unknown as Response, () => undefined);
  return () => responses.forEach((response) => response.emit('close'));
}

async function timeOfTurns(traffic: ReturnType<typeof createTraffic>): Promise<number> {
  const start = performance.now();
  await Promise.all(Array.from({ length: 5 }, () => traffic.giveWay()));
  return performance.now() - start;
}

test('work that nobody waits for goes on at once, and turn by turn while many wait for an answer', async () => {
  const traffic = createTraffic();
  const answerFew = ask(traffic, 3);
  const free = await timeOfTurns(traffic);
  const answerAll = ask(traffic, 7);
  const busy = await timeOfTurns(traffic);
  expect(busy).toBeGreaterThan(5 * 35);
  expect(busy).toBeGreaterThan(4 * free);
  answerFew();
  answerAll();
  expect(await timeOfTurns(traffic)).toBeLessThan(busy / 2);
});

test('pages that are open are not waited for', async () => {
  const traffic = createTraffic();
  const free = await timeOfTurns(traffic);
  ask(traffic, 20, '/api/v1/conversations/live?at=desk');
  expect(await timeOfTurns(traffic)).toBeLessThan(free + 4 * 35);
});

test('it gives way to what is behind as well, also where that fails', async () => {
  const traffic = createTraffic();
  let fail: (error: Error) => void = () => undefined;
  const behind = traffic.catchUp(() => new Promise((_resolve, reject) => (fail = reject)));
  const busy = await timeOfTurns(traffic);
  expect(busy).toBeGreaterThan(5 * 35);
  fail(new Error('broken'));
  await expect(behind).rejects.toThrow('broken');
  expect(await timeOfTurns(traffic)).toBeLessThan(busy / 2);
});
