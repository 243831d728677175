import type { api } from '../../contract';
import type { AnswerOf, BodyOf } from '../../contract/endpoint';
import { createRights, may, maySetUp } from '../../core/rights';
import {
  checkTarget,
  findDouble,
  reckonClock,
  stopsAtItsMeasure,
  type Measured,
  type TargetDefinition,
} from '../../core/targets';
import { keepEdition, takeOver } from '../clocks/editions';
import { readHistory } from '../clocks/read';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { appendSetting } from '../journal/append';
import type { Listo } from '../listo';
import { askForRecount } from '../clocks/askForRecount';
import type { SignedIn } from '../sessions/viewer';
import { requireTicket } from '../tickets/guard';
import { hasOwn } from '../../core/records';
import { visibleTo } from '../tickets/visibility';
import type { Changing } from '../unitOfWork';

type Body = BodyOf<typeof api.targets.define>;

/** Refuses what promises nothing, or what is promised already; said by field. */
async function judge(listo: Listo, definition: TargetDefinition, measures: Measured): Promise<void> {
  const calendars = await listo.calendars.getAll();
  const fields: { field: string; code: string }[] = checkTarget(definition).map(({ field, code }) => ({
    field,
    code: code,
  }));
  if (!stopsAtItsMeasure(measures, definition.stopWhen))
    fields.push({ field: 'stopWhen', code: 'notItsMeasure' });
  if (definition.calendars.some(({ calendarId }) => !hasOwn(calendars, calendarId)))
    fields.push({ field: 'calendars', code: 'notAChoice' });
  if (fields.length > 0) throw new ProblemError('fieldsNotValid', { fields });
  const others = await listo.db.tables.targets.find({ isOn: true });
  const double = findDouble(
    definition,
    others.map((other) => other.definition),
  );
  if (double)
    throw new ProblemError('promisedTwice', { fields: [{ field: double.name, code: 'promisedTwice' }] });
}

/** Whose it is may be changed by those of both teams, the one before and the one after. */
function requireSetUp(viewer: SignedIn, ...teamIds: (string | null)[]): void {
  if (!teamIds.every((teamId) => maySetUp(viewer, teamId))) throw new ProblemError('forbidden');
}

/**
 * Makes a promise or changes what it promises. Every edition is kept; clocks that are going take the new one over, or go
 * on by theirs, as is asked.
 */
export async function defineTarget(
  { listo, viewer, actor }: Changing,
  id: string,
  { version, definition: sent, measures, teamId, isForOpen }: Body,
): Promise<AnswerOf<typeof api.targets.define>> {
  const { tables } = listo.db;
  const definition = { ...(sent as TargetDefinition), id };
  requireSetUp(viewer, teamId);
  await judge(listo, definition, measures);
  return change(listo, actor, async (tx) => {
    const target = await tables.targets.findOne({ id }, tx, true);
    if (target) requireSetUp(viewer, target.teamId);
    if ((target?.version ?? 0) !== version)
      throw new ProblemError('stale', {
        differences: [{ field: 'name', theirs: target?.definition.name, yours: definition.name, by: null }],
      });
    const now = listo.clock.now();
    const edition = await keepEdition(
      { listo, tx },
      {
        ...{ target, id, definition, isForOpen, at: now, personId: viewer.id },
      },
    );
    const common = { definition, measures, teamId, edition, newFrom: isForOpen ? null : now };
    if (target) {
      const { warnAtPercent } = target.definition;
      const changed = { ...common, definition: { ...definition, warnAtPercent }, version: version + 1 };
      await tables.targets.update({ id }, changed, tx);
    } else {
      const position = (await tables.targets.find({}, { transaction: tx })).length;
      await tables.targets.insert({ ...common, id, notices: [], isOn: true, position, version: 1 }, tx);
    }
    if (isForOpen) await takeOver({ listo, tx }, { id, edition });
    await appendSetting(
      { listo, tx },
      {
        by: viewer.id,
        type: 'targetChanged',
        changes: { definition: { from: target?.definition ?? null, to: definition } },
        data: { targetId: id, name: definition.name, edition, isForOpen },
      },
    );
    if (isForOpen) await askForRecount({ listo, tx }, definition.name);
    return { version: (target?.version ?? 0) + 1, edition };
  });
}

/** A real ticket under a definition that is not saved: only for who may read the team's side of it. */
export async function previewTarget(
  listo: Listo,
  viewer: SignedIn,
  { definition: sent, number }: BodyOf<typeof api.targets.preview>,
): Promise<AnswerOf<typeof api.targets.preview>> {
  const { ticket, guarded } = await requireTicket({ listo, viewer }, { number, action: 'read' });
  if (!may(createRights(viewer), 'readNotes', guarded)) throw new ProblemError('notFound');
  const definition = sent as TargetDefinition;
  const calendars = await listo.calendars.getAll();
  if (definition.calendars.some(({ calendarId }) => !hasOwn(calendars, calendarId)))
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'calendars', code: 'notAChoice' }] });
  const history = await readHistory(listo, number, 'ticket');
  const { reading, rows, plainElapsed } = reckonClock(definition, calendars, history, listo.clock.now());
  const { limit, elapsed, percent, dueAt, state, breachedAt, stoppedAt } = reading;
  return {
    ...{
      title: ticket.title,
      name: definition.name,
      edition: 0,
      limit,
      elapsed,
      percent,
      dueAt,
      plainElapsed,
    },
    ...{ state, breachedAt, stoppedAt },
    rows: rows.map(({ calendarId, ...row }) => ({
      ...row,
      calendar: calendarId === null ? null : calendars[calendarId]!.spec.name,
    })),
  };
}

export async function listEditions(
  listo: Listo,
  viewer: SignedIn,
  id: string,
): Promise<AnswerOf<typeof api.targets.editions>> {
  const visible = visibleTo(viewer);
  const { tables, select } = listo.db;
  const target = await tables.targets.findOne({ id });
  if (!target) throw new ProblemError('notFound');
  const going = await select<{ edition: number; count: number }>(
    `SELECT c.edition, COUNT(*) AS count FROM clocks c JOIN tickets t ON t.number = c.ticketNumber
     WHERE c.targetId = :id AND c.state IN ('running', 'paused') AND ${visible.sql} GROUP BY c.edition`,
    { ...visible.values, id },
  );
  const kept = await select<{
    edition: number;
    definition: TargetDefinition;
    at: number;
    by: string | null;
    isForOpen: number;
  }>(
    `SELECT e.edition, e.definition, e.at, e.isForOpen, p.name AS \`by\` FROM target_editions e LEFT JOIN people p ON p.id = e.personId
     WHERE e.targetId = :id ORDER BY e.edition DESC`,
    { id },
  );
  const first: (typeof kept)[number] = {
    edition: 1,
    definition: target.definition,
    at: 0,
    by: null,
    isForOpen: 1,
  };
  return (kept.length > 0 ? kept : [first]).map(({ at, isForOpen, edition, ...row }) => ({
    ...{ ...row, edition, isForOpen: Boolean(isForOpen), at: at === 0 ? null : at },
    going: going.find((each) => each.edition === edition)?.count ?? 0,
  }));
}
