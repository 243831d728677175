import type { api } from '../../contract';
import type { AnswerOf } from '../../contract/endpoint';
import { compileCalendar, WEEKDAYS } from '../../core/calendar';
import { serviceTime } from '../../core/estate';
import { bucketAfter, bucketOf } from '../../core/measures';
import { toOutages } from '../../core/notices';
import { mayKeepThings } from '../../core/rights';
import { requireSeen } from '../estate/page';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import type { Changing, Viewing } from '../unitOfWork';

const nameOf = (thingId: string): string => `promised:${thingId}`;

/** Without a calendar it is promised always. */
const ALWAYS = compileCalendar({
  ...{ name: 'always', timeZone: 'UTC', hoursPerDay: 24, exceptions: [] },
  weekly: Object.fromEntries(WEEKDAYS.map((day) => [day, [{ from: '00:00', to: '24:00' }]])),
});

/** How long a thing did not work by its notices, by month of the calendar that it is promised by. */
export async function readServiceTime(
  { listo, viewer }: Viewing,
  id: string,
  months: number,
): Promise<AnswerOf<typeof api.notices.serviceTime>> {
  const { kind } = await requireSeen({ listo, viewer }, id);
  const { notices, settings } = listo.db.tables;
  const setting = await settings.findOne({ name: nameOf(id) });
  const calendarId = typeof setting?.value === 'string' ? setting.value : null;
  const calendar = (calendarId === null ? undefined : (await listo.calendars.getAll())[calendarId]) ?? ALWAYS;
  const about = await listo.db.select<{ id: string }>(
    'SELECT id FROM notices WHERE JSON_CONTAINS(thingIds, JSON_QUOTE(:id))',
    { id },
  );
  const own =
    about.length === 0 ? [] : await notices.find({ id: about.map((each) => each.id), calledBackAt: null });
  const now = listo.clock.now();
  const zone = calendar.spec.timeZone;
  const rows = [];
  for (
    let from = bucketOf(now, 'month', zone), n = 0;
    n < months;
    n++, from = bucketOf(from - 1, 'month', zone)
  ) {
    const to = Math.min(now, bucketAfter(from, 'month', zone));
    const behind = own.filter(
      ({ kind: of, fromAt, endedAt }) => of === 'outage' && fromAt < to && (endedAt ?? now) > from,
    );
    rows.push({
      from,
      ...serviceTime(toOutages(behind, now), calendar, from, to),
      notices: behind.map(({ id: noticeId, title }) => ({ id: noticeId, title })),
    });
  }
  return { calendarId, months: rows, maySet: mayKeepThings(viewer, kind.keptBy) };
}

/** Says by which calendar a thing is promised to work. */
export async function setPromised(
  { listo, viewer, actor }: Changing,
  id: string,
  calendarId: string | null,
): Promise<{ ok: true }> {
  const { kind } = await requireSeen({ listo, viewer }, id);
  if (!mayKeepThings(viewer, kind.keptBy)) throw new ProblemError('forbidden');
  if (calendarId !== null && !(await listo.calendars.getAll())[calendarId])
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'calendarId', code: 'notAChoice' }] });
  return change(listo, actor, async (tx) => {
    await listo.db.tables.settings.insertAll([{ name: nameOf(id), value: calendarId }], tx, {
      updates: ['value'],
    });
    return OK;
  });
}
