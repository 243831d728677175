import type { ErasureCounts } from '../../contract/privacy';
import { eraseValue, TOMBSTONE } from '../../core/privacy';
import { parsed } from '../database/json';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import type { FileStore } from '../files/store';
import { appendSetting } from '../journal/append';
import type { Listo } from '../listo';
import type { PersonRow } from '../people/model';
import { forgetViewers } from '../sessions/viewer';
import type { Changing, UnitOfWork } from '../unitOfWork';
import { eraseInJournal } from './journal';

/** What belongs to a ticket in confidence is counted nowhere. */
const notConfidential = (table: string): string =>
  `NOT EXISTS (SELECT 1 FROM tickets t WHERE t.number = ${table}.ticketNumber AND t.isConfidential)`;

/** How much there is of someone. */
const COUNTS: Record<keyof ErasureCounts, string> = {
  tickets: 'SELECT COUNT(*) FROM tickets WHERE requesterId = :personId AND isConfidential = 0',
  messages: `SELECT COUNT(*) FROM messages m WHERE m.authorId = :personId AND ${notConfidential('m')}`,
  files: `SELECT COUNT(*) FROM files f WHERE f.personId = :personId AND ${notConfidential('f')}`,
  conversations: 'SELECT COUNT(*) FROM conversations WHERE personId = :personId AND ticketNumber IS NULL',
  mails: `SELECT COUNT(*) FROM mail_out o WHERE o.toId = :personId AND ${notConfidential('o')}`,
  entries: `SELECT COUNT(*) FROM journal j WHERE (j.actorId = :personId OR j.aboutId = :personId) AND ${notConfidential('j')}`,
};

/** How much an erasure would touch. */
export async function countOf({ db }: Listo, personId: string): Promise<ErasureCounts> {
  const parts = Object.entries(COUNTS).map(([name, sql]) => `(${sql}) AS ${name}`);
  const [row] = await db.select<ErasureCounts>(`SELECT ${parts.join(', ')}`, { personId });
  return row!;
}

/** What somebody wrote, by table: each keeps its row and loses its words. */
const REPLACED = [
  `UPDATE messages SET text = :tombstone, links = '[]' WHERE authorId = :personId`,
  `UPDATE conversation_entries SET text = IF(text = '', '', :tombstone), data = '{}' WHERE authorId = :personId`,
  `UPDATE conversations SET ratingWord = IF(ratingWord IS NULL, NULL, :tombstone) WHERE personId = :personId`,
  `UPDATE asks SET words = IF(words IS NULL, NULL, :tombstone) WHERE decidedById = :personId OR (decidedById IS NULL AND askedId = :personId)`,
  `UPDATE mail_out SET toAddress = :address, subject = :tombstone, text = :tombstone WHERE toId = :personId`,
  `UPDATE mail_in SET fromAddress = :address, subject = :tombstone, detail = NULL WHERE personId = :personId`,
];
/** What is of nobody else's use, by table: it goes whole. */
const REMOVED = [
  ...[
    'sessions',
    'notifications',
    'kept_answers',
    'invitations',
    'mail_addresses',
    'team_members',
    'absences',
  ],
  ...['chat_wishes', 'chat_agents', 'questions_asked', 'second_factors', 'sign_on_subjects'],
];

async function eraseTickets({ listo, tx }: UnitOfWork, personId: string): Promise<void> {
  const { db } = listo;
  const rows = await db.select<{ number: number; answers: string }>(
    'SELECT number, answers FROM tickets WHERE requesterId = :personId FOR UPDATE',
    { personId },
    tx,
  );
  for (const { number, answers } of rows)
    await db.run(
      `UPDATE tickets SET title = :tombstone, place = IF(place = '', '', :tombstone), answers = :answers,
         ratingWord = IF(ratingWord IS NULL, NULL, :tombstone), version = version + 1 WHERE number = :number`,
      { number, tombstone: TOMBSTONE, answers: JSON.stringify(eraseValue(parsed<unknown>(answers))) },
      tx,
    );
}

/** The person keeps an id, a place in the organisation and a language; nothing says who it was. */
function erasePerson(
  { listo, tx }: UnitOfWork,
  { id, version }: PersonRow,
  address: string,
): Promise<number> {
  const nothing = { place: null, vessel: null, device: null, managerId: null, passwordHash: null };
  return listo.db.tables.people.update(
    { id },
    {
      ...{
        ...nothing,
        name: TOMBSTONE,
        email: address,
        phone: '',
        title: '',
        department: '',
        costCentre: '',
      },
      ...{ isAdministrator: false, mayAskForOthers: false, goesFirst: false, wantsMail: false },
      ...{ erasedAt: listo.clock.now(), version: version + 1 },
    },
    tx,
  );
}

async function eraseWithin(
  work: UnitOfWork,
  person: PersonRow,
): Promise<{ fileIds: string[]; entries: number }> {
  const { listo, tx } = work;
  const { db } = listo;
  const personId = person.id;
  const address = `erased-${personId.toLowerCase()}@erased.invalid`;
  // The journal is read by whose tickets they are: before anything else is gone.
  const entries = await eraseInJournal(work, personId);
  await eraseTickets(work, personId);
  for (const sql of REPLACED) await db.run(sql, { personId, tombstone: TOMBSTONE, address }, tx);
  for (const table of REMOVED)
    await db.run(`DELETE FROM ${table} WHERE personId = :personId`, { personId }, tx);
  await db.run(
    'DELETE FROM talk_turns WHERE talkId IN (SELECT id FROM talks WHERE personId = :personId)',
    { personId },
    tx,
  );
  await db.run('DELETE FROM talks WHERE personId = :personId', { personId }, tx);
  const files = await db.tables.files.find({ personId, articleId: null }, { transaction: tx });
  await db.tables.files.remove({ personId, articleId: null }, tx);
  await erasePerson(work, person, address);
  return { fileIds: files.map(({ id }) => id), entries };
}

/**
 * Erases who has left: words become tombstones, files go, what others rest on keeps its shape, and it is on record that it
 * was done, by whom and why.
 * @throws ProblemError where they have not left, are erased already, or the name typed is another
 */
export async function erase(
  { listo, viewer, actor }: Changing,
  store: FileStore,
  { personId, name, reason }: { personId: string; name: string; reason: string },
): Promise<ErasureCounts> {
  const counts = await countOf(listo, personId);
  const { fileIds, entries } = await change(listo, actor, async (tx) => {
    const work = { listo, tx };
    const person = await listo.db.tables.people.findOne({ id: personId }, tx, true);
    if (!person) throw new ProblemError('notFound');
    if (person.erasedAt !== null) throw new ProblemError('alreadyErased');
    if (person.leftAt === null) throw new ProblemError('stillHere');
    if (name.trim() !== person.name)
      throw new ProblemError('fieldsNotValid', { fields: [{ field: 'name', code: 'notTheName' }] });
    const done = await eraseWithin(work, person);
    await appendSetting(work, {
      by: viewer.id,
      type: 'personErased',
      data: { personId, teamIds: [], why: reason },
    });
    return done;
  });
  // What is gone from the database lies in no folder; one that does not go now is thrown away with what nobody sent.
  for (const id of fileIds) await store.remove(id);
  forgetViewers(listo);
  return { ...counts, entries };
}
