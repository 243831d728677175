import { nanoid } from 'nanoid';
import type { api } from '../../contract';
import type { BodyOf } from '../../contract/endpoint';
import { conditionSchema, type OwnWorklist } from '../../contract/worklists';
import type { Condition } from '../../core/conditions';
import { readsDesk, mayLead } from '../../core/rights';
import {
  checkCondition,
  GIVEN_LISTS,
  isGiven,
  type ConditionProblem,
  type WorklistDefinition,
} from '../../core/worklist';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import type { WorklistRow } from './model';
import type { Changing, UnitOfWork } from '../unitOfWork';

type Body = BodyOf<typeof api.worklists.create>;

const isOf = ({ teams }: SignedIn, teamId: string | null): boolean =>
  teams.some((team) => team.teamId === teamId);

function maySee(viewer: SignedIn, { ownerId, teamId }: WorklistRow): boolean {
  return ownerId === viewer.id || isOf(viewer, teamId);
}

function mayEdit(viewer: SignedIn, { ownerId, teamId }: WorklistRow): boolean {
  return ownerId === viewer.id || (teamId !== null && mayLead(viewer, teamId) && isOf(viewer, teamId));
}

function problemsOf({ condition, marks }: WorklistDefinition): ConditionProblem[] {
  return [condition, ...marks.map((mark) => mark.condition)].flatMap((each) => checkCondition(each));
}

function requireDesk(viewer: SignedIn): void {
  if (!readsDesk(viewer)) throw new ProblemError('forbidden');
}

function refuseConditions(definition: WorklistDefinition): void {
  const problems = problemsOf(definition);
  if (problems.length > 0)
    throw new ProblemError('fieldsNotValid', {
      fields: problems.map(({ code, field }) => ({ field: `condition.${field}`, code })),
    });
}

/** The worklists that someone keeps, and those that are shared with their teams; a shared one outlives its owner. */
export async function readLists(listo: Listo, viewer: SignedIn): Promise<OwnWorklist[]> {
  requireDesk(viewer);
  const teamIds = viewer.teams.map(({ teamId }) => teamId);
  const rows = await listo.db.select<
    WorklistRow & { ownerName: string | null; goesFirst: number; leftAt: number | null }
  >(
    `SELECT w.*, p.name AS ownerName, p.goesFirst, p.leftAt FROM worklists w LEFT JOIN people p ON p.id = w.ownerId
     WHERE w.ownerId = :viewerId OR w.teamId IN (:teamIds) ORDER BY w.name, w.id`,
    { viewerId: viewer.id, teamIds: [...teamIds, ''] },
  );
  return rows.map(({ ownerName, goesFirst, leftAt, changedAt: _, ownerId, ...row }) => ({
    ...row,
    owner: ownerName === null ? null : { id: ownerId, name: ownerName, goesFirst: Boolean(goesFirst) },
    isOrphaned: ownerName === null || leftAt !== null,
    mayEdit: mayEdit(viewer, { ...row, ownerId, changedAt: 0 }),
    problems: problemsOf(row.definition),
  }));
}

/** What a worklist selects and how it is seen, given or own. */
export async function findDefinition(
  listo: Listo,
  viewer: SignedIn,
  id: string,
): Promise<WorklistDefinition> {
  requireDesk(viewer);
  if (isGiven(id)) return GIVEN_LISTS[id];
  const row = await listo.db.tables.worklists.findOne({ id });
  if (!row || !maySee(viewer, row)) throw new ProblemError('notFound');
  if (problemsOf(row.definition).length > 0) throw new ProblemError('listNotAskable');
  return row.definition;
}

/** A condition that came as text. */
export function parseWhere(where: string | undefined): Condition | null {
  if (where === undefined) return null;
  const refuse = (code: string) => new ProblemError('fieldsNotValid', { fields: [{ field: 'where', code }] });
  let given: unknown;
  try {
    given = JSON.parse(where);
  } catch {
    throw refuse('malformed');
  }
  const parsed = conditionSchema.safeParse(given);
  if (!parsed.success) throw refuse('malformed');
  const [problem] = checkCondition(parsed.data);
  if (problem) throw refuse(problem.code);
  return parsed.data;
}

function refuseTeam(viewer: SignedIn, teamId: string | null): void {
  if (teamId !== null && !isOf(viewer, teamId))
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'teamId', code: 'notAChoice' }] });
}

export async function createList({ listo, viewer, actor }: Changing, body: Body) {
  requireDesk(viewer);
  refuseTeam(viewer, body.teamId);
  refuseConditions(body.definition);
  return change(listo, actor, async (tx) => {
    const id = nanoid(12);
    const kept = { ...body, id, ownerId: viewer.id, version: 1, changedAt: listo.clock.now() };
    await listo.db.tables.worklists.insert(kept, tx);
    return { id, version: 1 };
  });
}

async function requireOwn({ listo, tx }: UnitOfWork, viewer: SignedIn, id: string): Promise<WorklistRow> {
  if (isGiven(id)) throw new ProblemError('forbidden');
  const row = await listo.db.tables.worklists.findOne({ id }, tx, true);
  if (!row || !maySee(viewer, row)) throw new ProblemError('notFound');
  if (!mayEdit(viewer, row)) throw new ProblemError('forbidden');
  return row;
}

export async function updateList(
  { listo, viewer, actor }: Changing,
  id: string,
  { version, ...body }: Body & { version: number },
) {
  refuseTeam(viewer, body.teamId);
  refuseConditions(body.definition);
  return change(listo, actor, async (tx) => {
    const row = await requireOwn({ listo, tx }, viewer, id);
    if (row.version !== version)
      throw new ProblemError('stale', {
        differences: [{ field: 'definition', theirs: row.definition, yours: body.definition, by: null }],
      });
    // Who takes over the list of someone who has left, keeps it from then on.
    const owner = await listo.db.tables.people.findOne({ id: row.ownerId, leftAt: null }, tx);
    const changes = { ...body, version: version + 1, changedAt: listo.clock.now() };
    await listo.db.tables.worklists.update({ id }, { ...changes, ...(!owner && { ownerId: viewer.id }) }, tx);
    return { version: version + 1 };
  });
}

export async function removeList({ listo, viewer, actor }: Changing, id: string) {
  return change(listo, actor, async (tx) => {
    await requireOwn({ listo, tx }, viewer, id);
    await listo.db.tables.worklists.remove({ id }, tx);
    return OK;
  });
}
