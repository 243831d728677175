import { api } from '../../contract';
import { DEFAULT_MAIL_TEXTS, MAIL_TEMPLATES } from '../../core/mail';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK, serve, type Routes } from '../http/serve';
import { appendSetting } from '../journal/append';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { hiddenFrom } from '../tickets/hidden';
import type { MailInRow, MailOutRow } from './model';

const PAGE = 50;

/** Mail shows what people wrote to any team: it is for administrators. */
function requireAdministrator({ isAdministrator }: SignedIn): void {
  if (!isAdministrator) throw new ProblemError('forbidden');
}

/** The mailboxes of confidential teams that someone is not in: who wrote there, and of what, is theirs alone. */
async function readConfidentialMailboxes({ db }: Listo, { teams }: SignedIn): Promise<Set<string>> {
  const confidential = await db.tables.teams.find({ isConfidential: true });
  return new Set(
    confidential.flatMap(({ id, mailbox }) =>
      mailbox && !teams.some(({ teamId }) => teamId === id) ? [mailbox] : [],
    ),
  );
}

export const mailRoutes: Routes = (router, listo) => {
  const { mail } = api;
  const { tables, select } = listo.db;

  serve(router, mail.in, async ({ viewer, query }) => {
    requireAdministrator(viewer);
    const rows = await select<MailInRow>(
      'SELECT * FROM mail_in WHERE at < :before AND (:outcome = "" OR outcome = :outcome) ORDER BY at DESC, id LIMIT :limit',
      { before: query.before ?? Number.MAX_SAFE_INTEGER, outcome: query.outcome ?? '', limit: PAGE },
    );
    const isHidden = await hiddenFrom(listo, viewer);
    const own = await readConfidentialMailboxes(listo, viewer);
    return rows
      .filter(({ ticketNumber, toAddress }) => !isHidden(ticketNumber) && !own.has(toAddress.split('@')[0]!))
      .map(({ fromAddress: from, toAddress: to, messageId: _, personId: __, ...row }) => ({
        ...row,
        from,
        to,
      }));
  });

  serve(router, mail.out, async ({ viewer, query }) => {
    requireAdministrator(viewer);
    const rows = await select<MailOutRow>(
      'SELECT * FROM mail_out WHERE at < :before ORDER BY at DESC, id LIMIT :limit',
      {
        before: query.before ?? Number.MAX_SAFE_INTEGER,
        limit: PAGE,
      },
    );
    const isHidden = await hiddenFrom(listo, viewer);
    return rows
      .filter(({ ticketNumber }) => !isHidden(ticketNumber))
      .map(
        ({
          id,
          at,
          template,
          toAddress: to,
          subject,
          state,
          tries,
          nextAt,
          sentAt,
          error,
          ticketNumber,
        }) => ({
          ...{ id, at, template, to, subject, state, tries, nextAt, sentAt, error, ticketNumber },
        }),
      );
  });

  serve(router, mail.texts, async ({ viewer }) => {
    requireAdministrator(viewer);
    const own = await tables.mailTexts.find({});
    return MAIL_TEMPLATES.map((template) => {
      const row = own.find((each) => each.template === template);
      return {
        template,
        texts: row?.texts ?? DEFAULT_MAIL_TEXTS[template],
        version: row?.version ?? 0,
        isOwn: row !== undefined,
      };
    });
  });

  serve(router, mail.saveText, ({ viewer, actor, params: { template }, body: { version, texts } }) => {
    requireAdministrator(viewer);
    return change(listo, actor, async (tx) => {
      const row = await tables.mailTexts.findOne({ template }, tx, true);
      if ((row?.version ?? 0) !== version)
        throw new ProblemError('stale', {
          differences: [{ field: 'text', theirs: row?.texts.en.text, yours: texts?.en.text, by: null }],
        });
      if (row) await tables.mailTexts.remove({ template }, tx);
      if (texts) await tables.mailTexts.insert({ template, texts, version: version + 1 }, tx);
      await appendSetting({ listo, tx }, { by: viewer.id, type: 'mailTextChanged', data: { template } });
      return { version: texts ? version + 1 : 0 };
    });
  });

  serve(router, mail.retry, async ({ viewer, params }) => {
    requireAdministrator(viewer);
    const waiting = { state: 'waiting' as const, nextAt: listo.clock.now() };
    const tried = await tables.mailOut.update({ id: params.id, state: ['waiting', 'failed'] }, waiting);
    if (tried === 0) throw new ProblemError('notFound');
    return OK;
  });

  serve(router, mail.wanted, async ({ viewer, body }) => {
    await tables.people.update({ id: viewer.id }, { wantsMail: body.wantsMail });
    return OK;
  });
};
