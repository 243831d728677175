import { inLanguage } from '../../core/knowledge';
import { isMailOn, queueMail } from '../mail/queue';
import type { TimerHandler } from '../timers/runner';
import type { UnitOfWork } from '../unitOfWork';
import type { NoticeRow, NoticeUpdateRow } from './model';
import { tellOnTicket } from './tie';

/** So many tickets, then so many followers are told in one go, so that other timers and mails have their turn between. */
const CHUNK = 100;

/** First those with a ticket, by its door, then those who follow without one. */
type Part = 'tickets' | 'followers';

/** Begins to tell of an update at an instant. */
export function armTelling({ listo, tx }: UnitOfWork, updateId: string, at: number): Promise<unknown> {
  return arm({ listo, tx }, { updateId, part: 'tickets', after: '0' }, at);
}

function arm(
  { listo, tx }: UnitOfWork,
  { updateId, part, after }: { updateId: string; part: Part; after: string },
  at: number,
): Promise<unknown> {
  const ref = `${updateId} ${part} ${after}`;
  return listo.db.tables.timers.insert({ ticketNumber: 0, kind: 'tellNotice', ref, at }, tx);
}

/** What waits to be told of a notice is not told. */
export async function disarmTelling({ listo, tx }: UnitOfWork, noticeId: string): Promise<void> {
  await listo.db.run(
    `DELETE FROM timers WHERE ticketNumber = 0 AND kind = 'tellNotice'
       AND SUBSTRING_INDEX(ref, ' ', 1) IN (SELECT id FROM notice_updates WHERE noticeId = :noticeId)`,
    { noticeId },
    tx,
  );
}

type Told = { notice: NoticeRow; update: NoticeUpdateRow };

/** The next tickets in line. @returns the last of them; null: there are no more */
async function tellTickets({ listo, tx }: UnitOfWork, told: Told, after: number): Promise<number | null> {
  const rows = await listo.db.select<{ ticketNumber: number }>(
    `SELECT ticketNumber FROM notice_tickets WHERE noticeId = :noticeId AND ticketNumber > :after
     ORDER BY ticketNumber LIMIT :limit`,
    { noticeId: told.notice.id, after, limit: CHUNK },
    tx,
  );
  for (const { ticketNumber } of rows) {
    const ticket = await listo.db.tables.tickets.findOne({ number: ticketNumber }, tx, true);
    if (ticket) await tellOnTicket({ listo, tx }, ticket, told);
  }
  return rows.length < CHUNK ? null : rows.at(-1)!.ticketNumber;
}

/** The next followers who have no ticket. @returns the last of them; null: there are no more */
async function tellFollowers(
  { listo, tx }: UnitOfWork,
  { notice, update }: Told,
  after: string,
): Promise<string | null> {
  const { tables, select } = listo.db;
  const rows = await select<{ personId: string; isTold: number }>(
    `SELECT f.personId, (EXISTS (SELECT 1 FROM notice_told d WHERE d.updateId = :updateId AND d.personId = f.personId)
       OR EXISTS (SELECT 1 FROM notice_tickets n JOIN tickets t ON t.number = n.ticketNumber AND t.requesterId = f.personId
                  WHERE n.noticeId = :noticeId)) AS isTold
     FROM notice_followers f WHERE f.noticeId = :noticeId AND f.personId > :after ORDER BY f.personId LIMIT :limit`,
    { updateId: update.id, noticeId: notice.id, after, limit: CHUNK },
    tx,
  );
  const ids = rows.filter(({ isTold }) => isTold === 0).map(({ personId }) => personId);
  const people = (await tables.people.find({ id: ids, leftAt: null }, { transaction: tx })).filter(
    ({ id }) => id !== update.byId,
  );
  await tables.noticeTold.insertAll(
    people.map(({ id }) => ({ updateId: update.id, personId: id })),
    tx,
  );
  await tables.notifications.insertAll(
    people.map(({ id }) => ({
      ...{ personId: id, ticketNumber: null, noticeId: notice.id, journalId: update.journalId },
      ...{ event: 'noticeTold' as const, relation: 'alsoTold' as const },
      ...{ at: listo.clock.now(), words: update.words, readAt: null },
    })),
    tx,
  );
  if (await isMailOn(listo, tx))
    for (const { id, name, email, language, wantsMail } of people)
      if (wantsMail && email !== '')
        await queueMail(
          { listo, tx },
          {
            ...{ template: 'noticeTold', to: { id, name, email, language }, about: null },
            blanks: {
              title: inLanguage(notice.title, language),
              words: inLanguage(update.words, language),
              link: `${listo.address}/ask`,
            },
          },
        );
  return rows.length < CHUNK ? null : rows.at(-1)!.personId;
}

/** Tells of updates: everyone tied to the notice once, some in each go. */
export const tellNotice: TimerHandler = async (listo, due, tx) => {
  const work = { listo, tx };
  const { noticeUpdates, notices } = listo.db.tables;
  for (const { ref } of due) {
    const [updateId, part, after] = ref.split(' ') as [string, Part, string];
    const update = await noticeUpdates.findOne({ id: updateId }, tx);
    const notice = update && (await notices.findOne({ id: update.noticeId }, tx));
    if (!notice || notice.calledBackAt !== null) continue;
    const now = listo.clock.now();
    if (part === 'tickets') {
      const last = update.isForFollowers ? null : await tellTickets(work, { notice, update }, Number(after));
      if (last !== null) await arm(work, { updateId, part, after: String(last) }, now);
      else await arm(work, { updateId, part: 'followers', after: '' }, now);
    } else {
      const last = await tellFollowers(work, { notice, update }, after);
      if (last !== null) await arm(work, { updateId, part, after: last }, now);
    }
  }
};
