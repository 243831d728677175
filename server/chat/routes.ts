import { nanoid } from 'nanoid';
import { api } from '../../contract';
import { findUnknownNoticeBlanks } from '../../core/chat';
import { isAgent, readsDesk, maySetUp } from '../../core/rights';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK, serve, type Routes } from '../http/serve';
import { appendSetting } from '../journal/append';
import type { Listo } from '../listo';
import { readNames } from '../people/names';
import type { SignedIn } from '../sessions/viewer';
import { hiddenFrom } from '../tickets/hidden';
import { completeRows, ROW_JOINS, ROW_SELECT, type RowRecord } from '../worklists/rows';
import { visibleTo } from '../tickets/visibility';
import { declareActions } from './chat';
import { ChatAway, ChatRefused, createConnector, type ChatConnector } from './connector';
import type { ChatInRow, ChatNoticeRow, ChatOutRow } from './model';
import { queueChat } from './queue';
import { findStranger } from './rooms';
import { listFormServices } from './serviceForm';
import { CHAT_SETTING, readChatSettings } from './settings';
import { findChat } from './access';

const PAGE = 60;
const BOARD = 40;

/** The chat, where there is one and it answers. */
async function ask<T>(listo: Listo, work: (chat: ChatConnector) => Promise<T>): Promise<T> {
  const access = await findChat(listo);
  if (!access) throw new ProblemError('noChat');
  try {
    return await work(createConnector(access));
  } catch (error) {
    if (error instanceof ChatAway || error instanceof ChatRefused) throw new ProblemError('chatAway');
    throw error;
  }
}

const refuse = (field: string, code: string) =>
  new ProblemError('fieldsNotValid', { fields: [{ field, code }] });

/** Chat concerns a team: its lead's and administrators' affair. */
function requireSetUp(viewer: SignedIn, teamId: string | null): void {
  if (
    !maySetUp(viewer, teamId) &&
    !viewer.teams.some((team) => team.teamId === teamId && team.role === 'lead')
  )
    throw new ProblemError('forbidden');
}

export const chatRoutes: Routes = (router, listo) => {
  const { chat } = api;
  const { tables, select } = listo.db;
  serve(router, chat.rooms, async ({ viewer }) => {
    if (!readsDesk(viewer)) throw new ProblemError('forbidden');
    const rooms = await ask(listo, (connector) => connector.listRooms());
    const connected = await tables.chatRooms.find({});
    // That a closed room is there, and how it is called, is for those in it, and for who connects rooms.
    const mayKnow = ({ id, kind }: { id: string; kind: string }): boolean => {
      const row = connected.find(({ roomId }) => roomId === id);
      return (
        kind === 'open' ||
        viewer.isAdministrator ||
        viewer.teams.some(({ teamId, role }) => role !== 'agent' || teamId === row?.teamId)
      );
    };
    return rooms.filter(mayKnow).map(({ id, name, kind }) => {
      const row = connected.find(({ roomId }) => roomId === id);
      return {
        ...{ roomId: id, name, kind, job: row?.job ?? null, teamId: row?.teamId ?? null },
        ...{
          serviceId: row?.serviceId ?? null,
          isEach: row?.isEach ?? false,
          language: row?.language ?? 'en',
        },
        ...{ state: row?.state ?? 'on', reason: row?.reason ?? null, version: row?.version ?? 0 },
      };
    });
  });

  serve(router, chat.connect, async ({ viewer, actor, params: { id }, body: { version, ...body } }) => {
    requireSetUp(viewer, body.teamId);
    if (body.job === 'team' && !(await tables.teams.findOne({ id: body.teamId ?? '' })))
      throw refuse('teamId', 'missing');
    if (body.serviceId !== null && !(await tables.services.findOne({ id: body.serviceId })))
      throw refuse('serviceId', 'notAChoice');
    const name = await ask(listo, async (connector) => {
      const room = await connector.listMembers(id);
      if (body.job === 'team') {
        if (room.kind !== 'closed') throw refuse('roomId', 'roomNotClosed');
        const stranger = await findStranger(listo, connector, { roomId: id, teamId: body.teamId });
        if (stranger !== null)
          throw new ProblemError('roomHasOthers', { fields: [{ field: stranger, code: 'notAgent' }] });
      }
      await connector.join(id);
      return room.name;
    });
    return change(listo, actor, async (tx) => {
      const row = await tables.chatRooms.findOne({ roomId: id }, tx, true);
      if ((row?.version ?? 0) !== version)
        throw new ProblemError('stale', {
          differences: [{ field: 'room', theirs: row?.job, yours: body.job, by: null }],
        });
      if (row) await tables.chatRooms.remove({ roomId: id }, tx);
      await tables.chatRooms.insert(
        { ...body, roomId: id, name, state: 'on', reason: null, version: version + 1 },
        tx,
      );
      await appendSetting(
        { listo, tx },
        {
          by: viewer.id,
          type: 'chatRoomSet',
          data: { room: name, job: body.job, teamId: body.teamId },
        },
      );
      return OK;
    });
  });

  serve(router, chat.disconnect, async ({ viewer, actor, params: { id } }) => {
    const row = await tables.chatRooms.findOne({ roomId: id });
    if (!row) throw new ProblemError('notFound');
    requireSetUp(viewer, row.teamId);
    return change(listo, actor, async (tx) => {
      await tables.chatRooms.remove({ roomId: id }, tx);
      await appendSetting({ listo, tx }, { by: viewer.id, type: 'chatRoomLeft', data: { room: row.name } });
      return OK;
    });
  });

  serve(router, chat.board, async ({ viewer, params: { id } }) => {
    const room = await tables.chatRooms.findOne({ roomId: id });
    if (room?.job !== 'team' || room.teamId === null || !isAgent(viewer)) return null;
    const { sql, values } = visibleTo(viewer);
    const records = await select<RowRecord>(
      `${ROW_SELECT} FROM tickets t ${ROW_JOINS} WHERE t.teamId = :boardTeam AND t.state IN ('received', 'inWork', 'held') AND ${sql}
       ORDER BY t.tightestDueAt, t.number LIMIT :limit`,
      { ...values, boardTeam: room.teamId, limit: BOARD },
    );
    return { teamId: room.teamId, rows: await completeRows(listo, records) };
  });

  serve(router, chat.settings, async ({ viewer }) => {
    if (!viewer.isAdministrator) throw new ProblemError('forbidden');
    return { ...(await readChatSettings(listo)), services: await listFormServices(listo) };
  });

  serve(router, chat.saveSettings, async ({ viewer, actor, body }) => {
    if (!viewer.isAdministrator) throw new ProblemError('forbidden');
    const fitting = (await listFormServices(listo)).flatMap(({ id, notInChat }) => (notInChat ? [] : [id]));
    if (body.formServiceIds.some((id) => !fitting.includes(id))) throw refuse('formServiceIds', 'notInChat');
    const saved = await change(listo, actor, async (tx) => {
      const before = await readChatSettings(listo);
      if (before.version !== body.version)
        throw new ProblemError('stale', {
          differences: [{ field: 'name', theirs: before.name.en, yours: body.name.en, by: null }],
        });
      const value = { ...body, version: body.version + 1 };
      await tables.settings.remove({ name: CHAT_SETTING }, tx);
      await tables.settings.insert({ name: CHAT_SETTING, value }, tx);
      await appendSetting({ listo, tx }, { by: viewer.id, type: 'chatSet', data: {} });
      return { version: value.version };
    });
    await ask(listo, (connector) => declareActions(listo, connector));
    return saved;
  });

  const requireNotice = async (viewer: SignedIn, id: string): Promise<ChatNoticeRow> => {
    const row = await tables.chatNotices.findOne({ id });
    if (!row) throw new ProblemError('notFound');
    requireSetUp(viewer, row.teamId);
    return row;
  };

  serve(router, chat.notices, async ({ viewer }) => {
    if (!readsDesk(viewer)) throw new ProblemError('forbidden');
    const notices = await tables.chatNotices.find({}, { order: ['name'] });
    const names = await readNames(
      listo,
      notices.map(({ personId }) => personId),
    );
    return notices.map((notice) => ({ ...notice, person: names.get(notice.personId ?? '') ?? null }));
  });

  serve(router, chat.addNotice, async ({ viewer, actor, body }) => {
    requireSetUp(viewer, body.teamId);
    const unknown = findUnknownNoticeBlanks(body.words);
    if (unknown.length > 0)
      throw new ProblemError('unknownBlank', {
        fields: unknown.map((field) => ({ field, code: 'unknown' })),
      });
    if ([body.roomId, body.personId, body.toTeamId].filter((to) => to !== null).length !== 1)
      throw refuse('roomId', 'missing');
    if (
      body.toGroupId !== null &&
      !(await tables.groups.findOne({ id: body.toGroupId, teamId: body.toTeamId ?? '' }))
    )
      throw refuse('toGroupId', 'notAChoice');
    return change(listo, actor, async (tx) => {
      const id = nanoid(12);
      await tables.chatNotices.insert({ ...body, id, isOn: false, triedAt: null, version: 1 }, tx);
      await appendSetting(
        { listo, tx },
        { by: viewer.id, type: 'chatNoticeAdded', data: { name: body.name } },
      );
      return { id };
    });
  });

  serve(router, chat.tryNotice, async ({ viewer, actor, params: { id } }) => {
    const row = await requireNotice(viewer, id);
    return change(listo, actor, async (tx) => {
      const [latest] = await select<{ number: number }>(
        `SELECT t.number FROM tickets t WHERE t.isConfidential = 0 AND (:teamId IS NULL OR t.teamId = :teamId) ORDER BY t.number DESC LIMIT 1`,
        { teamId: row.teamId },
        tx,
      );
      await queueChat(listo, tx, {
        body: { do: 'notice', noticeId: id, isTrial: true },
        to: {
          ticketNumber: latest?.number ?? null,
          roomId: row.roomId,
          // A whole team is not troubled by a trial: who tries it sees it.
          personId: row.toTeamId === null ? row.personId : viewer.id,
        },
      });
      await tables.chatNotices.update({ id }, { triedAt: listo.clock.now() }, tx);
      return OK;
    });
  });

  serve(router, chat.turnNotice, async ({ viewer, actor, params: { id }, body: { isOn } }) => {
    const row = await requireNotice(viewer, id);
    if (isOn && row.triedAt === null) throw new ProblemError('notTried');
    return change(listo, actor, async (tx) => {
      await tables.chatNotices.update({ id }, { isOn, version: row.version + 1 }, tx);
      await appendSetting(
        { listo, tx },
        {
          by: viewer.id,
          type: 'chatNoticeTurned',
          data: { name: row.name, isOn },
        },
      );
      return OK;
    });
  });

  serve(router, chat.removeNotice, async ({ viewer, actor, params: { id } }) => {
    const row = await requireNotice(viewer, id);
    return change(listo, actor, async (tx) => {
      await tables.chatNotices.remove({ id }, tx);
      await appendSetting(
        { listo, tx },
        { by: viewer.id, type: 'chatNoticeRemoved', data: { name: row.name } },
      );
      return OK;
    });
  });

  /** What people said to any team stands here: it is for administrators. */
  serve(router, chat.in, async ({ viewer }) => {
    if (!viewer.isAdministrator) throw new ProblemError('forbidden');
    const rows = await select<ChatInRow & { room: string | null }>(
      'SELECT i.*, r.name AS room FROM chat_in i LEFT JOIN chat_rooms r ON r.roomId = i.roomId ORDER BY i.receivedAt DESC LIMIT :limit',
      { limit: PAGE },
    );
    const isHidden = await hiddenFrom(listo, viewer);
    return rows
      .filter(({ ticketNumber }) => !isHidden(ticketNumber))
      .map(({ id, receivedAt, body, outcome, detail, ticketNumber, room }) => {
        // What is said in a closed room, or in direct talk, is for those in it.
        const isOpen = body.roomKind === 'open';
        return {
          ...{
            id,
            receivedAt,
            outcome,
            detail,
            ticketNumber,
            type: body.type,
            at: body.message?.at ?? body.at,
          },
          room: isOpen ? (room ?? '') : '',
          text: isOpen ? (body.message?.text ?? '').slice(0, 200) : '',
        };
      });
  });

  serve(router, chat.out, async ({ viewer }) => {
    if (!viewer.isAdministrator) throw new ProblemError('forbidden');
    const rows = await select<ChatOutRow & { room: string | null; person: string | null }>(
      `SELECT o.*, r.name AS room, p.name AS person FROM chat_out o LEFT JOIN chat_rooms r ON r.roomId = o.roomId
       LEFT JOIN people p ON p.id = o.personId ORDER BY o.place DESC LIMIT :limit`,
      { limit: PAGE },
    );
    const isHidden = await hiddenFrom(listo, viewer);
    return rows
      .filter(({ ticketNumber }) => !isHidden(ticketNumber))
      .map(({ id, at, kind, state, tries, sentAt, error, ticketNumber, room, person }) => ({
        ...{ id, at, kind, state, tries, sentAt, error, ticketNumber, room: room ?? person ?? '' },
      }));
  });

  serve(router, chat.wish, async ({ viewer }) => {
    const wish = await tables.chatWishes.findOne({ personId: viewer.id });
    const person = await tables.people.findOne({ id: viewer.id });
    return { wantsChat: wish?.wantsChat ?? true, quiet: wish?.quiet ?? null, wantsMail: person!.wantsMail };
  });

  serve(router, chat.setWish, async ({ viewer, actor, body: { wantsChat, wantsMail, quiet } }) => {
    if (!wantsChat && !wantsMail) throw refuse('wantsChat', 'oneDoor');
    return change(listo, actor, async (tx) => {
      await tables.chatWishes.remove({ personId: viewer.id }, tx);
      await tables.chatWishes.insert({ personId: viewer.id, wantsChat, quiet }, tx);
      await tables.people.update({ id: viewer.id }, { wantsMail }, tx);
      return OK;
    });
  });
};
