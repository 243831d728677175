import { forgetCatalogue } from '../catalogue/services';
import { startTestListo, until, type TestListo } from '../testing/harness';

/** Mails that ask for a decision: the first asks, the next says that it is a reminder; each leads to that decision. */
let app: TestListo;
beforeAll(async () => {
  app = await startTestListo('reminder', { startsAt: Date.parse('2026-11-23T09:00:00Z') });
});
afterAll(() => app.end());

test('who is silent gets a mail that says it is a reminder, and leads to the decision itself', async () => {
  const { db } = app.listo;
  const tomas = await app.as('tomas');
  const ana = await app.as('ana');
  const name = { en: 'The manager agrees', pt: 'A chefia concorda' };
  const silence = { after: 'PT2H', then: 'remind', most: 1 } as const;
  await db.tables.services.update(
    { id: 'other' },
    {
      version: 100,
      approvals: [
        {
          ...{ name, refs: [{ manager: 'ofRequester' }], needs: { kind: 'any' }, declineBy: 'any', silence },
        },
      ],
    },
  );
  forgetCatalogue(app.listo);
  const asked = { serviceId: 'other', title: 'A chair', answers: { what: 'A chair' } };
  const { body } = await tomas.call('POST', '/tickets', asked);
  const { number } = body as { number: number };
  const asks = (await ana.call('GET', '/my/asks')).body as { id: string; number: number }[];
  const { id } = asks.find((ask) => ask.number === number)!;
  const mails = () => db.tables.mailOut.find({ ticketNumber: number, toId: 'ana' }, { order: ['at'] });
  const [first] = await until(mails, ({ length }) => length === 1);
  expect([first!.template, first!.text.includes(`/ask#ask-${id}`)]).toEqual(['ask', true]);
  app.clock.pass(26 * 3_600_000);
  const [, reminded] = await until(mails, ({ length }) => length === 2);
  expect([reminded!.template, reminded!.replyTo]).toEqual(['askAgain', first!.replyTo]);
  expect(reminded!.text).toContain(`/ask#ask-${id}`);
  expect(reminded!.subject).not.toBe(first!.subject);
});
