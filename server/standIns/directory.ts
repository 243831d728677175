import { Router } from 'express';
import * as z from 'zod';
import type { Listo } from '../listo';

const askedSchema = z.object({
  answerTo: z.url(),
  ticket: z.object({ number: z.number(), answers: z.record(z.string(), z.unknown()) }),
});

const THINKS_MS = 1_500;

/** A name as accounts are called: of letters alone. */
function toAccount(words: string): string {
  const plain = words
    .normalize('NFD')
    .replace(/[^\p{L} ]/gu, '')
    .toLowerCase();
  return plain.split(' ').filter(Boolean).join('.');
}

/**
 * Stands in for an organisation's directory of accounts and rights, so that plans can be seen at work: it takes an
 * order, thinks a little and answers to where the order says. An order that comes again is the same order.
 */
export function createDirectory(listo: Listo): Router {
  const router = Router();
  const taken = new Set<string>();
  router.post('/', async (request, response) => {
    const demo = await listo.db.tables.settings.findOne({ name: 'demo' });
    const asked = askedSchema.safeParse(request.body);
    // It answers to nobody but this application.
    const isOurs = asked.data?.answerTo.startsWith(`${listo.address}/api/v1/step-answers/`) === true;
    if (!demo || !asked.success || !isOurs) {
      response.status(demo ? 400 : 404).end();
      return;
    }
    const key = request.get('Idempotency-Key') ?? '';
    response.status(202).end();
    if (taken.has(key)) return;
    taken.add(key);
    const { answerTo, ticket } = asked.data;
    const who = typeof ticket.answers.who === 'string' ? ticket.answers.who : '';
    const fields = who === '' ? {} : { account: toAccount(who) };
    setTimeout(() => {
      fetch(answerTo, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ fields, words: `Order ${ticket.number} carried out.` }),
      }).catch((err: unknown) => listo.log.warn({ err }, 'the directory could not answer'));
    }, THINKS_MS).unref();
  });
  return router;
}
