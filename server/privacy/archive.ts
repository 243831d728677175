import type { Response } from 'express';
import { existsSync } from 'node:fs';
import { Readable } from 'node:stream';
import { ZipFile } from 'yazl';
import { toLine } from '../../core/audit';
import { parseEntry } from '../audit/parse';
import type { FileStore } from '../files/store';
import { ProblemError } from '../http/problems';
import { recordExport } from '../journal/append';
import type { JournalRow } from '../journal/model';
import type { Viewing } from '../unitOfWork';

const AT_ONCE = 500;

/**
 * What an archive is made of: a file of JSON lines each, by a statement over rows with an ascending `cursor`. What the team
 * said among itself is the team's, and stays out of it.
 */
const PARTS: Record<string, string> = {
  tickets: `SELECT t.number AS \`cursor\`, t.number, t.kind, t.title, t.serviceId, t.state, t.priority, t.place, t.answers, t.createdAt, t.closedAt,
    t.solution, t.rating, t.ratingWord FROM tickets t WHERE t.requesterId = :personId AND (:isOwn OR t.isConfidential = 0)`,
  messages: `SELECT n.\`cursor\`, m.id, m.ticketNumber, m.at, m.text, m.authorId FROM messages m
    JOIN (SELECT id, ROW_NUMBER() OVER (ORDER BY at, id) AS \`cursor\` FROM messages x WHERE x.authorId = :personId
      OR (x.readBy = 'requester' AND x.ticketNumber IN (SELECT number FROM tickets WHERE requesterId = :personId))) n ON n.id = m.id
    JOIN tickets t ON t.number = m.ticketNumber WHERE (:isOwn OR t.isConfidential = 0) AND (m.readBy = 'requester' OR m.authorId = :personId)`,
  conversations: `SELECT e.place AS \`cursor\`, e.conversationId, e.at, e.authorId, e.text FROM conversation_entries e
    JOIN conversations c ON c.id = e.conversationId WHERE (c.personId = :personId OR e.authorId = :personId) AND e.readBy <> 'team'`,
  decisions: `SELECT ROW_NUMBER() OVER (ORDER BY a.askedAt, a.id) AS \`cursor\`, a.ticketNumber, a.askedAt, a.decision, a.decidedAt, a.words
    FROM asks a WHERE a.askedId = :personId OR a.decidedById = :personId`,
  mails: `SELECT ROW_NUMBER() OVER (ORDER BY o.at, o.id) AS \`cursor\`, o.at, o.toAddress, o.subject, o.text FROM mail_out o WHERE o.toId = :personId`,
  sessions: `SELECT ROW_NUMBER() OVER (ORDER BY s.createdAt, s.id) AS \`cursor\`, s.createdAt, s.seenAt, s.userAgent FROM sessions s WHERE s.personId = :personId`,
  providers: `SELECT ROW_NUMBER() OVER (ORDER BY o.at, o.providerId) AS \`cursor\`, p.name, o.subject, o.at FROM sign_on_subjects o
    JOIN sign_on_providers p ON p.id = o.providerId WHERE o.personId = :personId`,
  questions: `SELECT q.id AS \`cursor\`, q.at, q.words FROM questions_asked q WHERE q.personId = :personId`,
};

const README = [
  'What Listo knows of one person.',
  'person.json: what is kept of them. The other files hold a JSON object a line; instants are ms since 1970 (UTC).',
  'journal.jsonl: what they did and what was done about them. files/: what they sent.',
  'Words that a team wrote among itself are not in it.',
].join('\n');

type Part = { personId: string; isOwn: boolean };

/** The rows of a part as lines, a page at a time. */
async function* readLines(
  { listo }: Viewing,
  sql: string,
  { personId, isOwn }: Part,
): AsyncGenerator<string> {
  let after = 0;
  for (;;) {
    const rows = await listo.db.select<{ cursor: number }>(
      `SELECT * FROM (${sql}) part WHERE part.\`cursor\` > :after ORDER BY part.\`cursor\` LIMIT :limit`,
      { personId, isOwn, after, limit: AT_ONCE },
    );
    for (const { cursor: _cursor, ...row } of rows) yield `${JSON.stringify(row)}\n`;
    if (rows.length < AT_ONCE) return;
    after = rows.at(-1)!.cursor;
  }
}

async function* readJournal({ listo }: Viewing, { personId, isOwn }: Part): AsyncGenerator<string> {
  let after = 0;
  for (;;) {
    const rows = await listo.db.select<JournalRow>(
      `SELECT j.* FROM journal j LEFT JOIN tickets t ON t.number = j.ticketNumber WHERE j.id > :after AND (j.actorId = :personId OR j.aboutId = :personId)
         AND (j.ticketNumber IS NULL OR :isOwn OR t.isConfidential = 0) ORDER BY j.id LIMIT :limit`,
      { personId, isOwn, after, limit: AT_ONCE },
    );
    for (const row of rows) yield `${toLine(parseEntry(row))}\n`;
    if (rows.length < AT_ONCE) return;
    after = rows.at(-1)!.id;
  }
}

/**
 * Sends everything that is known of a person as one archive (ZIP), as it is read. Of tickets in confidence only the person
 * has them in it: no role opens them.
 */
export async function sendArchive(
  viewing: Viewing,
  { personId, store, response }: { personId: string; store: FileStore; response: Response },
): Promise<void> {
  const { listo, viewer } = viewing;
  const { tables } = listo.db;
  const found = await tables.people.findOne({ id: personId });
  if (!found) throw new ProblemError('notFound');
  const { passwordHash: _hash, ...person } = found;
  await recordExport(listo, viewer.id, `archive of ${personId}`);
  const part = { personId, isOwn: viewer.id === personId };
  const zip = new ZipFile();
  response.attachment(`listo-${personId.replace(/[^\w-]/g, '')}.zip`).type('application/zip');
  zip.addBuffer(Buffer.from(README), 'README.txt');
  const teams = await tables.members.find({ personId });
  const things = await tables.things.find({ holderId: personId }, { attributes: ['id', 'name'] });
  zip.addBuffer(Buffer.from(JSON.stringify({ ...person, teams, things }, null, 2)), 'person.json');
  for (const [name, sql] of Object.entries(PARTS))
    zip.addReadStreamLazy(`${name}.jsonl`, (ready) =>
      ready(null, Readable.from(readLines(viewing, sql, part))),
    );
  zip.addReadStreamLazy('journal.jsonl', (ready) => ready(null, Readable.from(readJournal(viewing, part))));
  const files = await listo.db.select<{ id: string; name: string }>(
    `SELECT f.id, f.name FROM files f LEFT JOIN tickets t ON t.number = f.ticketNumber
     WHERE f.personId = :personId AND (t.number IS NULL OR :isOwn OR t.isConfidential = 0)`,
    part,
  );
  for (const { id, name } of files) {
    const file = store.pathOf(id);
    // A name from outside never leads out of the folder.
    const safe = name.replace(/[\\/:*?"<>|\0]/g, '_').replace(/^\.+/, '_');
    if (existsSync(file)) zip.addFile(file, `files/${id}-${safe}`);
  }
  zip.end();
  await new Promise<void>((resolve, reject) => {
    zip.outputStream.on('error', reject);
    response.on('close', resolve);
    zip.outputStream.pipe(response);
  });
}
