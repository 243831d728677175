import { api } from '../../contract';
import type { Notification } from '../../contract/notifications';
import { OK, serve, type Routes } from '../http/serve';
import { visibleTo } from '../tickets/visibility';

const SHOWN = 100;
/** What one is told of: a ticket that one may read, or a notice. */
const ABOUT = (visible: string): string =>
  `LEFT JOIN tickets t ON t.number = n.ticketNumber AND ${visible} LEFT JOIN notices x ON x.id = n.noticeId`;
const IS_THERE = '(t.number IS NOT NULL OR x.calledBackAt IS NULL AND x.id IS NOT NULL)';
type Row = Omit<Notification, 'isRead'> & { readAt: number | null };

export const notificationRoutes: Routes = (router, listo) => {
  const { notifications } = api;

  serve(router, notifications.list, async ({ viewer }) => {
    const visible = visibleTo(viewer);
    const rows = await listo.db.select<Row>(
      `SELECT n.id, n.at, n.event, n.relation AS \`as\`, n.words, n.readAt, t.number, COALESCE(t.title, JSON_VALUE(x.title, :title)) AS title, p.name AS actor
       FROM notifications n ${ABOUT(visible.sql)} JOIN journal j ON j.id = n.journalId
       LEFT JOIN people p ON p.id = j.actorId
       WHERE n.personId = :id AND ${IS_THERE} ORDER BY n.id DESC LIMIT :limit`,
      { ...visible.values, id: viewer.id, limit: SHOWN, title: `$.${viewer.language}` },
    );
    const [unread] = await listo.db.select<{ count: number }>(
      `SELECT COUNT(*) AS count FROM notifications n ${ABOUT(visible.sql)}
       WHERE n.personId = :id AND ${IS_THERE} AND n.readAt IS NULL`,
      { ...visible.values, id: viewer.id },
    );
    const shown = rows.map(({ readAt, ...row }) => ({ ...row, isRead: readAt !== null }));
    return { notifications: shown, unread: unread!.count };
  });

  serve(router, notifications.read, async ({ viewer, body }) => {
    const which = body.number === undefined ? {} : { ticketNumber: body.number };
    await listo.db.tables.notifications.update(
      { personId: viewer.id, readAt: null, ...which },
      { readAt: listo.clock.now() },
    );
    return OK;
  });
};
