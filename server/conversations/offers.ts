import type { Transaction } from 'sequelize';
import { afterSilence } from '../../core/conversations';
import { chooseForOffer } from '../../core/routing';
import { startLoop, type Loop } from '../loops/loop';
import type { Listo } from '../listo';
import { endWithin, passOn } from './deeds';
import type { ChatLineRow, ConversationRow } from './model';
import { recordEntry } from './record';
import { GONE_AFTER_MS, readCandidates } from './waits';

const BATCH = 200;
/** So long is offered at a stretch, well within the lease: what agents have is then looked at anew. */
const TURN_MS = 1_000;

/** Works on one conversation on its locked row, if it still is as it was found. */
async function onStill(
  listo: Listo,
  { id, version }: ConversationRow,
  work: (tx: Transaction, row: ConversationRow) => Promise<void>,
): Promise<boolean> {
  return listo.db.transaction(async (tx) => {
    const row = await listo.db.tables.conversations.findOne({ id }, tx, true);
    if (row?.version !== version) return false;
    await work(tx, row);
    return true;
  });
}

/** Takes back offers that nobody took in time, or whose agent's Desk is no longer open. */
async function takeBackOffers(listo: Listo, now: number): Promise<number> {
  const rows = await listo.db.select<ConversationRow>(
    `SELECT c.* FROM conversations c JOIN chat_lines l ON l.id = c.lineId LEFT JOIN chat_agents a ON a.personId = c.offeredTo
     WHERE c.offeredTo IS NOT NULL AND c.state <> 'ended' AND (c.offeredAt <= :now - l.offerSeconds * 1000 OR (c.handedBy IS NULL AND COALESCE(a.seenAt, 0) <= :gone)) LIMIT ${BATCH}`,
    { now, gone: now - GONE_AFTER_MS },
  );
  let done = 0;
  for (const row of rows)
    if (
      await onStill(listo, row, (tx, locked) =>
        passOn({ listo, tx }, { conversation: locked, why: 'ranOut' }),
      )
    )
      done++;
  return done;
}

/** Conversations whose agent is gone, while the employee waits for them, go back to the front of their line. */
async function rescue(listo: Listo, now: number): Promise<number> {
  const rows = await listo.db.select<ConversationRow>(
    `SELECT c.* FROM conversations c LEFT JOIN chat_agents a ON a.personId = c.agentId
     WHERE c.state = 'open' AND c.offeredTo IS NULL AND c.personSaidAt > COALESCE(c.agentSaidAt, 0) AND COALESCE(a.seenAt, 0) <= :gone LIMIT ${BATCH}`,
    { gone: now - GONE_AFTER_MS },
  );
  let done = 0;
  for (const row of rows)
    if (
      await onStill(listo, row, (tx, locked) =>
        recordEntry({ listo, tx }, locked, {
          entry: { type: 'waiting', authorId: null },
          changes: { state: 'waiting', agentId: null, lineAt: locked.startedAt, passedOver: [] },
        }).then(() => undefined),
      )
    )
      done++;
  return done;
}

/** Offers what waits in a line, those who wait longest first, until nobody can have more. */
async function offerLine(
  listo: Listo,
  { line, waiting }: { line: ChatLineRow; waiting: ConversationRow[] },
  { now, isOver }: { now: number; isOver(): boolean },
): Promise<number> {
  const candidates = await readCandidates(listo, line);
  let done = 0;
  for (const row of waiting) {
    if (isOver()) break;
    const { personId } = chooseForOffer(candidates, line.skill, row.passedOver);
    if (personId === null) continue;
    const isOffered = await onStill(listo, row, async (tx, locked) => {
      const { tables } = listo.db;
      // It is no event in the conversation: only the agent sees it.
      await tables.conversations.update(
        { id: locked.id },
        { state: 'offered', offeredTo: personId, offeredAt: now, version: locked.version + 1 },
        tx,
      );
      await recordEntry(
        { listo, tx },
        { ...locked, version: locked.version + 1 },
        { entry: { type: 'waiting', authorId: null, readBy: 'agents', data: { offeredTo: personId } } },
      );
    });
    if (!isOffered) continue;
    const one = candidates.find(({ id }) => id === personId)!;
    Object.assign(one, { load: one.load + 1, lastGivenAt: now });
    done++;
  }
  return done;
}

async function offerWaiting(listo: Listo, now: number): Promise<number> {
  const waiting = await listo.db.tables.conversations.find(
    { state: 'waiting' },
    { order: ['lineAt', 'id'], limit: BATCH },
  );
  if (waiting.length === 0) return 0;
  const lines = await listo.db.tables.chatLines.find({
    id: [...new Set(waiting.map(({ lineId }) => lineId))],
  });
  const end = performance.now() + TURN_MS;
  let done = 0;
  for (const line of lines) {
    const own = waiting.filter(({ lineId }) => lineId === line.id);
    done += await offerLine(listo, { line, waiting: own }, { now, isOver: () => performance.now() > end });
  }
  return done;
}

/** Asks whether the employee is still there, and ends it when they are not. */
async function hearSilence(listo: Listo, now: number): Promise<number> {
  const rows = await listo.db.select<ConversationRow & { askAfter: number; endAfter: number }>(
    `SELECT c.*, l.askAfter, l.endAfter FROM conversations c JOIN chat_lines l ON l.id = c.lineId
     WHERE c.state = 'open' AND c.agentSaidAt IS NOT NULL AND c.agentSaidAt > c.personSaidAt
       AND GREATEST(c.agentSaidAt, COALESCE(c.askedThereAt, 0)) <= :now - LEAST(l.askAfter, l.endAfter) * 60000 LIMIT ${BATCH}`,
    { now },
  );
  let done = 0;
  for (const row of rows) {
    const { askAfter, endAfter } = row;
    const facts = { personSaidAt: row.personSaidAt, agentSaidAt: row.agentSaidAt, askedAt: row.askedThereAt };
    const silence = afterSilence(facts, { askAfter, endAfter }, now);
    if (silence === 'nothing') continue;
    const isDone = await onStill(listo, row, async (tx, locked) => {
      if (silence === 'end') await endWithin({ listo, tx }, locked, { endedBy: 'silence', authorId: null });
      else
        await recordEntry({ listo, tx }, locked, {
          entry: { type: 'asked', authorId: null },
          changes: { askedThereAt: now },
        });
    });
    if (isDone) done++;
  }
  return done;
}

/** One look at all conversations: offers taken back, rescued, offered, asked and ended. @returns how many changed */
export async function lookAtConversations(listo: Listo): Promise<number> {
  const now = listo.clock.now();
  return (
    (await takeBackOffers(listo, now)) +
    (await rescue(listo, now)) +
    (await hearSilence(listo, now)) +
    (await offerWaiting(listo, now))
  );
}

/** Keeps conversations going, in one process at a time. */
export function startOffers(listo: Listo): Loop {
  return startLoop(listo, 'conversations', () => lookAtConversations(listo));
}

/** What waits may be offered to someone once more. */
export async function offerAnew({ db }: Listo, personId: string): Promise<void> {
  await db.run(
    `UPDATE conversations SET passedOver = JSON_REMOVE(passedOver, JSON_UNQUOTE(JSON_SEARCH(passedOver, 'one', :personId)))
     WHERE state = 'waiting' AND JSON_CONTAINS(passedOver, JSON_QUOTE(:personId))`,
    { personId },
  );
}
