import { nanoid } from 'nanoid';
import type { Transaction } from 'sequelize';
import { mayComeBack } from '../../core/conversations';
import { isAgent } from '../../core/rights';
import { findByMark } from '../estate/choices';
import { change, type Actor } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import type { Listo } from '../listo';
import { findPersonAsViewer, type SignedIn } from '../sessions/viewer';
import { requireConversation, type Guarded, type Side } from './guard';
import type { ConversationRow } from './model';
import { recordEntry } from './record';
import { readHours } from './waits';
import type { Changing, UnitOfWork } from '../unitOfWork';

export type By = { listo: Listo; viewer: SignedIn; actor: Actor; id: string };

/** Does something to a conversation, in one transaction, on the locked row. */
function on<T>(
  { listo, viewer, actor, id }: By,
  as: Side | undefined,
  work: (tx: Transaction, found: Guarded) => Promise<T>,
): Promise<T> {
  return change(listo, actor, async (tx) =>
    work(tx, await requireConversation({ listo, viewer }, id, { tx, ...(as && { as }) })),
  );
}

const refuse = (field: string, code: string) =>
  new ProblemError('fieldsNotValid', { fields: [{ field, code }] });

/** The conversation that someone has, if they have one: two at once there are not. */
async function findUnderWay({ listo: { db }, tx }: UnitOfWork, personId: string): Promise<string | null> {
  const [open] = await db.select<{ id: string }>(
    "SELECT id FROM conversations WHERE personId = :personId AND state <> 'ended' LIMIT 1",
    { personId },
    tx,
  );
  return open?.id ?? null;
}

/** Asks for a person: into the line, with the first words. One at a time; who has one is in it already. */
export async function startConversation(
  { listo, viewer, actor }: Changing,
  { lineId, words, from }: { lineId: string; words: string; from: string },
): Promise<{ id: string }> {
  const { tables } = listo.db;
  const line = await tables.chatLines.findOne({ id: lineId, isOn: true });
  if (!line) throw new ProblemError('notFound');
  if (!(await readHours(listo, line)).isOpen) throw new ProblemError('lineClosed');
  return change(listo, actor, async (tx) => {
    // Of two that are sent at once the second waits for the first.
    await tables.people.findOne({ id: viewer.id }, tx, true);
    const open = await findUnderWay({ listo, tx }, viewer.id);
    if (open !== null) return { id: open };
    const now = listo.clock.now();
    const row: ConversationRow = {
      ...{ id: nanoid(12), personId: viewer.id, lineId, state: 'waiting', agentId: null, offeredTo: null },
      ...{ offeredAt: null, passedOver: [], handedBy: null, handedWhy: null, invitedIds: [], assetTag: null },
      ...{ startedAt: now, lineAt: now, firstTakenAt: null, endedAt: null, endedBy: null, personSaidAt: now },
      ...{ agentSaidAt: null, askedThereAt: null, ticketNumber: null, isMade: false, rating: null },
      ...{ ratingWord: null, version: 1 },
    };
    await tables.conversations.insert(row, tx);
    await recordEntry({ listo, tx }, row, {
      entry: {
        type: 'words',
        authorId: viewer.id,
        text: words,
        data: { from },
      },
    });
    return { id: row.id };
  });
}

/** Says something: the employee to the agents, an agent to the employee or beside them to other agents. */
export function sayInConversation(
  by: By,
  { text, readBy, fileIds }: { text: string; readBy: 'all' | 'agents'; fileIds: string[] },
): Promise<{ ok: true }> {
  const { listo, viewer } = by;
  if (text.trim() === '' && fileIds.length === 0) throw refuse('text', 'missing');
  return on(by, undefined, async (tx, { conversation, side }) => {
    if (conversation.state === 'ended') throw new ProblemError('conversationOver');
    const isToAll = side === 'person' || readBy === 'all';
    // An agent speaks to the employee once they have it; before, and beside, among agents.
    const isTheirs = conversation.agentId === viewer.id || conversation.invitedIds.includes(viewer.id);
    if (side === 'agent' && isToAll && !isTheirs) throw new ProblemError('forbidden');
    const now = listo.clock.now();
    const ids = [...new Set(fileIds)];
    await recordEntry({ listo, tx }, conversation, {
      entry: {
        ...{ type: 'words', authorId: viewer.id, text, readBy: isToAll ? 'all' : 'agents' },
        ...(ids.length > 0 && { data: { fileIds: ids } }),
      },
      changes: side === 'person' ? { personSaidAt: now } : isToAll ? { agentSaidAt: now } : {},
    });
    if (ids.length > 0) {
      const kept = await listo.db.tables.files.update(
        { id: ids as never, personId: viewer.id, ticketNumber: null, conversationId: null },
        { conversationId: conversation.id },
        tx,
      );
      if (kept !== ids.length) throw refuse('fileIds', 'notAChoice');
    }
    return OK;
  });
}

/** An agent takes it: offered to them, or out of their team's line. Of two at the same instant one has it. */
export function acceptConversation(by: By): Promise<{ ok: true }> {
  const { listo, viewer } = by;
  return on(by, 'agent', async (tx, { conversation, line }) => {
    const { state, offeredTo, agentId, handedBy } = conversation;
    if (state === 'open' && agentId === viewer.id && offeredTo !== viewer.id) return OK;
    const isOffered = offeredTo === viewer.id;
    const isInLine = (state === 'waiting' || state === 'offered') && agentId === null;
    const isOfTeam = viewer.teams.some(({ teamId }) => teamId === line.teamId);
    if (!isOffered && !(isInLine && isOfTeam)) throw new ProblemError('alreadyTaken');
    const now = listo.clock.now();
    await recordEntry({ listo, tx }, conversation, {
      entry: { type: handedBy === null ? 'taken' : 'handed', authorId: viewer.id },
      changes: {
        ...{ state: 'open', agentId: viewer.id, offeredTo: null, offeredAt: null, passedOver: [] },
        ...{ handedBy: null, handedWhy: null, firstTakenAt: conversation.firstTakenAt ?? now },
      },
    });
    await listo.db.tables.chatAgents.update({ personId: viewer.id }, { lastGivenAt: now }, tx);
    return OK;
  });
}

/**
 * Takes an offer back from someone who let it pass, or did not take it up in time: who handed it over keeps it; what came
 * from the line is offered to the next.
 */
export async function passOn(
  { listo, tx }: UnitOfWork,
  { conversation, why }: { conversation: ConversationRow; why: 'declined' | 'ranOut' },
): Promise<void> {
  const { offeredTo, agentId, handedBy, passedOver } = conversation;
  const who = offeredTo ?? '';
  const changes: Partial<ConversationRow> = { offeredTo: null };
  if (handedBy !== null && agentId !== null)
    Object.assign(changes, { state: 'open', handedBy: null, handedWhy: null });
  else Object.assign(changes, { state: 'waiting', passedOver: [...new Set([...passedOver, who])] });
  const type = why === 'ranOut' ? 'ranOut' : handedBy === null ? 'passed' : 'notHanded';
  await recordEntry({ listo, tx }, conversation, {
    entry: { type, authorId: offeredTo, readBy: 'agents' },
    changes,
  });
}

export function declineConversation(by: By): Promise<{ ok: true }> {
  const { listo, viewer } = by;
  return on(by, 'agent', async (tx, { conversation }) => {
    if (conversation.offeredTo === viewer.id) await passOn({ listo, tx }, { conversation, why: 'declined' });
    return OK;
  });
}

/**
 * Hands it over: an agent is asked and reads all before they take it, the one who has it keeps it until then; or it goes
 * to a line, to the front by how long it has lasted.
 */
export function handOver(
  by: By,
  { agentId, lineId, why }: { agentId: string | null; lineId: string | null; why: string },
): Promise<{ ok: true }> {
  const { listo, viewer } = by;
  return on(by, 'agent', async (tx, { conversation }) => {
    if (conversation.agentId !== viewer.id || conversation.state !== 'open')
      throw new ProblemError('forbidden');
    if ((agentId === null) === (lineId === null)) throw refuse('agentId', 'missing');
    const now = listo.clock.now();
    const handed = { handedBy: viewer.id, handedWhy: why };
    if (agentId !== null) {
      const other = agentId === viewer.id ? null : await findPersonAsViewer(listo, agentId);
      if (!other || !isAgent(other)) throw refuse('agentId', 'notAChoice');
      await recordEntry({ listo, tx }, conversation, {
        entry: { type: 'handing', authorId: viewer.id, data: { to: other.name } },
        changes: { ...handed, offeredTo: agentId, offeredAt: now },
      });
    } else {
      const line = await listo.db.tables.chatLines.findOne({ id: lineId!, isOn: true }, tx);
      if (!line) throw refuse('lineId', 'notAChoice');
      await recordEntry({ listo, tx }, conversation, {
        entry: { type: 'handing', authorId: viewer.id, data: { line: line.name } },
        changes: {
          ...{
            ...handed,
            state: 'waiting',
            agentId: null,
            offeredTo: null,
            offeredAt: null,
            lineId: line.id,
          },
          ...{ lineAt: conversation.startedAt, passedOver: [viewer.id] },
        },
      });
    }
    await recordEntry({ listo, tx }, conversation, {
      entry: {
        ...{ type: 'words', authorId: viewer.id, readBy: 'agents', text: why, data: { isWhy: true } },
      },
    });
    return OK;
  });
}

export function inviteTo(by: By, personId: string): Promise<{ ok: true }> {
  const { listo, viewer } = by;
  return on(by, 'agent', async (tx, { conversation }) => {
    if (conversation.agentId !== viewer.id) throw new ProblemError('forbidden');
    const other = await findPersonAsViewer(listo, personId);
    if (!other || !isAgent(other) || personId === viewer.id || personId === conversation.personId)
      throw refuse('personId', 'notAChoice');
    if (conversation.invitedIds.includes(personId)) return OK;
    await recordEntry({ listo, tx }, conversation, {
      entry: { type: 'invited', authorId: viewer.id, data: { who: other.name } },
      changes: { invitedIds: [...conversation.invitedIds, personId] },
    });
    return OK;
  });
}

/** Ties the device that the employee confirmed by its tag. */
export function tieDevice(by: By, tag: string): Promise<{ ok: true }> {
  const { listo, viewer } = by;
  return on(by, 'agent', async (tx, { conversation }) => {
    const [asset] = await findByMark({ listo, tx }, tag);
    if (!asset) throw refuse('tag', 'notAChoice');
    const entry = {
      type: 'device' as const,
      authorId: viewer.id,
      data: { tag: asset.tag || asset.id, name: asset.name },
    };
    await recordEntry({ listo, tx }, conversation, { entry, changes: { assetTag: asset.id } });
    return OK;
  });
}

/** Ends it, by either side or after silence. */
export async function endWithin(
  { listo, tx }: UnitOfWork,
  conversation: ConversationRow,
  { endedBy, authorId }: { endedBy: NonNullable<ConversationRow['endedBy']>; authorId: string | null },
): Promise<void> {
  await recordEntry({ listo, tx }, conversation, {
    entry: { type: 'ended', authorId, data: { by: endedBy } },
    changes: {
      state: 'ended',
      endedAt: listo.clock.now(),
      endedBy,
      offeredTo: null,
      offeredAt: null,
      handedBy: null,
    },
  });
}

export function endConversation(by: By): Promise<{ ok: true }> {
  const { listo, viewer } = by;
  return on(by, undefined, async (tx, { conversation, side }) => {
    if (conversation.state === 'ended') return OK;
    if (side === 'agent' && conversation.agentId !== viewer.id) throw new ProblemError('forbidden');
    // Who goes before anyone came has been abandoned.
    const endedBy = conversation.firstTakenAt === null ? 'left' : side;
    await endWithin({ listo, tx }, conversation, { endedBy, authorId: viewer.id });
    return OK;
  });
}

/** Comes back to it within the day: to the same agent where they are there, else to the front of the line. */
export function comeBack(by: By): Promise<{ ok: true }> {
  const { listo, viewer } = by;
  return on(by, 'person', async (tx, { conversation }) => {
    const now = listo.clock.now();
    if (conversation.state !== 'ended') return OK;
    if (!mayComeBack(conversation.endedAt, now)) throw new ProblemError('conversationOver');
    if ((await findUnderWay({ listo, tx }, viewer.id)) !== null) throw new ProblemError('conversationOpen');
    const isWithAgent = conversation.agentId !== null;
    await recordEntry({ listo, tx }, conversation, {
      entry: { type: 'returned', authorId: viewer.id },
      changes: {
        ...{ state: isWithAgent ? 'open' : 'waiting', endedAt: null, endedBy: null, personSaidAt: now },
        ...{ lineAt: conversation.startedAt, passedOver: [] },
      },
    });
    return OK;
  });
}

export function rateConversation(by: By, rating: number, word: string): Promise<{ ok: true }> {
  const { listo } = by;
  return on(by, 'person', async (tx, { conversation }) => {
    await listo.db.tables.conversations.update(
      { id: conversation.id },
      { rating, ratingWord: word.trim() || null },
      tx,
    );
    return OK;
  });
}
