import { nanoid } from 'nanoid';
import type { api } from '../../contract';
import type { BodyOf } from '../../contract/endpoint';
import type { Board, BoardCard } from '../../contract/measures';
import { checkChart, getGivenBoard, GIVEN_BOARDS, listTeamsAsked } from '../../core/measures';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import type { SignedIn } from '../sessions/viewer';
import type { Changing, UnitOfWork, Viewing } from '../unitOfWork';
import { requireFigures } from './ask';
import type { BoardRow } from './model';

type Body = BodyOf<typeof api.measures.createBoard>;

const maySee = ({ id, teams }: SignedIn, { ownerId, isForAll, teamIds }: BoardRow): boolean =>
  ownerId === id || isForAll || teams.some(({ teamId }) => teamIds.includes(teamId));
const mayChange = ({ id, isAdministrator }: SignedIn, { ownerId }: BoardRow): boolean =>
  ownerId === id || isAdministrator;

/** Refuses charts that ask for what there is not, and sharing what is about a team in confidence with others. */
async function checkBoard({ listo, tx }: UnitOfWork, { charts, teamIds, isForAll }: Body): Promise<void> {
  const fields = charts.flatMap((chart, i) =>
    checkChart(chart).map(({ code, field }) => ({ code, field: `charts.${i}.${field}` })),
  );
  if (new Set(charts.map(({ id }) => id)).size < charts.length)
    fields.push({ code: 'twice' as never, field: 'charts' });
  const teams = await listo.db.tables.teams.find({}, { transaction: tx });
  for (const teamId of teamIds)
    if (!teams.some(({ id }) => id === teamId))
      fields.push({ code: 'notAChoice' as never, field: 'teamIds' });
  if (fields.length > 0) throw new ProblemError('fieldsNotValid', { fields });
  const asked = new Set(
    charts.flatMap(({ of, where, what }) => [
      ...listTeamsAsked(of, where),
      ...(what !== 'count' && 'share' in what ? listTeamsAsked(of, what.share) : []),
    ]),
  );
  const isShownOutside = (teamId: string): boolean => isForAll || teamIds.some((other) => other !== teamId);
  if (teams.some(({ id, isConfidential }) => isConfidential && asked.has(id) && isShownOutside(id)))
    throw new ProblemError('confidentialShared');
}

/** The boards that someone may look at: the given ones, their own, and those that are shared with them. */
export async function listBoards({ listo, viewer }: Viewing): Promise<BoardCard[]> {
  requireFigures({ listo, viewer });
  const { tables } = listo.db;
  const rows = (await tables.boards.find({}, { order: ['name', 'id'] })).filter((row) => maySee(viewer, row));
  const owners = await tables.people.find(
    { id: [...new Set(rows.map(({ ownerId }) => ownerId))] },
    { attributes: ['id', 'name', 'goesFirst'] },
  );
  const given = GIVEN_BOARDS.map(({ id, charts }) => ({
    ...{ id, name: '', isGiven: true, owner: null, isShared: true, charts: charts.length },
  }));
  const kept = rows.map(({ id, name, ownerId, teamIds, isForAll, charts }) => ({
    ...{ id, name, isGiven: false, owner: owners.find((owner) => owner.id === ownerId) ?? null },
    ...{ isShared: isForAll || teamIds.length > 0, charts: charts.length },
  }));
  return [...given, ...kept];
}

/** A board with its charts. @throws ProblemError where there is none that the viewer may see */
export async function readBoard({ listo, viewer }: Viewing, id: string): Promise<Board> {
  requireFigures({ listo, viewer });
  const given = getGivenBoard(id);
  if (given)
    return {
      ...{ ...given, name: '', isGiven: true, owner: null, teamIds: [], isForAll: true, version: 0 },
      ...{ mayChange: false, problems: {} },
    };
  const { tables } = listo.db;
  const row = await tables.boards.findOne({ id });
  if (!row || !maySee(viewer, row)) throw new ProblemError('notFound');
  const { name, ownerId, teamIds, isForAll, stretch, charts, version } = row;
  const owner = await tables.people.findOne({ id: ownerId });
  const problems = charts.map((chart) => [chart.id, checkChart(chart)] as const);
  return {
    ...{
      id,
      name,
      isGiven: false,
      teamIds,
      isForAll,
      stretch,
      charts,
      version,
      mayChange: mayChange(viewer, row),
    },
    owner: owner && { id: owner.id, name: owner.name, goesFirst: owner.goesFirst },
    problems: Object.fromEntries(problems.filter(([, found]) => found.length > 0)),
  };
}

export function createBoard({ listo, viewer, actor }: Changing, body: Body): Promise<{ id: string }> {
  requireFigures({ listo, viewer });
  return change(listo, actor, async (tx) => {
    await checkBoard({ listo, tx }, body);
    const [id, now] = [nanoid(12), listo.clock.now()];
    await listo.db.tables.boards.insert(
      { ...body, id, ownerId: viewer.id, version: 1, createdAt: now, changedAt: now },
      tx,
    );
    return { id };
  });
}

async function requireOwn({ listo, tx }: UnitOfWork, viewer: SignedIn, id: string): Promise<BoardRow> {
  const row = await listo.db.tables.boards.findOne({ id }, tx, true);
  if (!row || !maySee(viewer, row)) throw new ProblemError('notFound');
  if (!mayChange(viewer, row)) throw new ProblemError('forbidden');
  return row;
}

export function updateBoard(
  { listo, viewer, actor }: Changing,
  id: string,
  { version, ...body }: BodyOf<typeof api.measures.updateBoard>,
): Promise<{ version: number }> {
  requireFigures({ listo, viewer });
  return change(listo, actor, async (tx) => {
    const row = await requireOwn({ listo, tx }, viewer, id);
    if (row.version !== version) throw new ProblemError('stale');
    await checkBoard({ listo, tx }, body);
    const next = version + 1;
    await listo.db.tables.boards.update({ id }, { ...body, version: next, changedAt: listo.clock.now() }, tx);
    return { version: next };
  });
}

export function removeBoard({ listo, viewer, actor }: Changing, id: string): Promise<typeof OK> {
  requireFigures({ listo, viewer });
  return change(listo, actor, async (tx) => {
    await requireOwn({ listo, tx }, viewer, id);
    await listo.db.tables.boards.remove({ id }, tx);
    return OK;
  });
}
