import { api } from '../../contract';
import { toICalendar } from '../../core/icalendar';
import { readsDesk } from '../../core/rights';
import { ProblemError } from '../http/problems';
import { serve, type Routes } from '../http/serve';
import {
  createCalendar,
  mayEditCalendar,
  readFile,
  readUsers,
  removeCalendar,
  updateCalendar,
} from './service';

export const calendarRoutes: Routes = (router, listo) => {
  const { calendars } = api;
  const { tables } = listo.db;

  serve(router, calendars.list, async ({ viewer }) => {
    const rows = await tables.calendars.find({}, { order: ['id'] });
    const usersOf = await readUsers(listo);
    return rows.map(({ id, spec, version }) => {
      const usedBy = usersOf(id);
      return { id, spec, version, usedBy, mayEdit: mayEditCalendar(viewer, usedBy) };
    });
  });
  serve(router, calendars.create, ({ viewer, actor, body }) =>
    createCalendar({ listo, viewer, actor }, body.spec),
  );
  serve(router, calendars.update, ({ viewer, actor, params, body }) =>
    updateCalendar({ listo, viewer, actor }, params.id, body),
  );
  serve(router, calendars.remove, ({ viewer, actor, params }) =>
    removeCalendar({ listo, viewer, actor }, params.id),
  );
  serve(router, calendars.read, ({ viewer, body }) => {
    if (!readsDesk(viewer)) throw new ProblemError('forbidden');
    return Promise.resolve(readFile(listo, body.text, body.spec));
  });
  // All the world's holidays are large, and seldom wanted.
  const readHolidays = () => import('./holidays');
  serve(router, calendars.holidayPlaces, async ({ viewer }) =>
    (await readHolidays()).listHolidayPlaces(viewer.language),
  );
  serve(router, calendars.holidays, async ({ viewer, query }) =>
    (await readHolidays()).listHolidays(query, viewer.language),
  );

  router.get('/calendars/:id/calendar.ics', async (request, response) => {
    if (!request.viewer) throw new ProblemError('notSignedIn');
    const calendar = await tables.calendars.findOne({ id: request.params.id });
    if (!calendar) throw new ProblemError('notFound');
    const name = calendar.spec.name.replace(/[^\p{L}\p{N}]+/gu, '-');
    response.attachment(`${name}.ics`).type('text/calendar; charset=utf-8');
    response.send(toICalendar(calendar.spec, listo.clock.now()));
  });
};
