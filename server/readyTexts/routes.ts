import { nanoid } from 'nanoid';
import { api } from '../../contract';
import type { BodyOf } from '../../contract/endpoint';
import { findUnknownBlanks } from '../../core/readyTexts';
import { isAgent } from '../../core/rights';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK, serve, type Routes } from '../http/serve';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { requireTicket } from '../tickets/guard';
import { fillReadyTexts } from './fill';
import type { ReadyTextRow } from './model';
import type { UnitOfWork } from '../unitOfWork';

type Body = BodyOf<typeof api.readyTexts.create>;

/** One's own are one's own; what a team shares, any of its members keeps up. */
function mayEdit(viewer: SignedIn, { ownerId, teamId }: Pick<ReadyTextRow, 'ownerId' | 'teamId'>): boolean {
  return teamId === null ? ownerId === viewer.id : viewer.teams.some((team) => team.teamId === teamId);
}

async function readTexts(listo: Listo, viewer: SignedIn): Promise<ReadyTextRow[]> {
  if (!isAgent(viewer)) throw new ProblemError('forbidden');
  const teamIds = viewer.teams.map(({ teamId }) => teamId);
  const shared = await listo.db.tables.readyTexts.find({ teamId: teamIds }, { order: ['name'] });
  const own = await listo.db.tables.readyTexts.find(
    { teamId: null, ownerId: viewer.id },
    { order: ['name'] },
  );
  return [...own, ...shared];
}

function refuse(viewer: SignedIn, { teamId, text }: Body): void {
  const problem = (field: string, code: string) =>
    new ProblemError('fieldsNotValid', { fields: [{ field, code }] });
  if (!mayEdit(viewer, { ownerId: viewer.id, teamId })) throw problem('teamId', 'notAChoice');
  if (text.en.trim() === '' && text.pt.trim() === '') throw problem('text', 'missing');
  if (findUnknownBlanks(`${text.en} ${text.pt}`).length > 0) throw problem('text', 'unknownBlank');
}

async function requireOwn({ listo, tx }: UnitOfWork, viewer: SignedIn, id: string): Promise<ReadyTextRow> {
  const row = await listo.db.tables.readyTexts.findOne({ id }, tx, true);
  if (!row || !mayEdit(viewer, row)) throw new ProblemError('notFound');
  return row;
}

export const readyTextRoutes: Routes = (router, listo) => {
  const { readyTexts } = api;
  const { tables } = listo.db;
  serve(router, readyTexts.list, async ({ viewer }) =>
    (await readTexts(listo, viewer)).map(({ ownerId, ...row }) => ({
      ...row,
      mayEdit: mayEdit(viewer, { ownerId, teamId: row.teamId }),
    })),
  );
  serve(router, readyTexts.create, ({ viewer, actor, body }) => {
    if (!isAgent(viewer)) throw new ProblemError('forbidden');
    refuse(viewer, body);
    return change(listo, actor, async (tx) => {
      const id = nanoid(12);
      await tables.readyTexts.insert({ ...body, id, ownerId: viewer.id, version: 1 }, tx);
      return { id };
    });
  });
  serve(router, readyTexts.update, ({ viewer, actor, params, body: { version, ...body } }) => {
    refuse(viewer, body);
    return change(listo, actor, async (tx) => {
      const row = await requireOwn({ listo, tx }, viewer, params.id);
      if (row.version !== version)
        throw new ProblemError('stale', {
          differences: [{ field: 'text', theirs: row.text, yours: body.text, by: null }],
        });
      await tables.readyTexts.update({ id: params.id }, { ...body, version: version + 1 }, tx);
      return { version: version + 1 };
    });
  });
  serve(router, readyTexts.remove, ({ viewer, actor, params }) =>
    change(listo, actor, async (tx) => {
      await requireOwn({ listo, tx }, viewer, params.id);
      await tables.readyTexts.remove({ id: params.id }, tx);
      return OK;
    }),
  );
  serve(router, readyTexts.forTicket, async ({ viewer, params }) => {
    await requireTicket({ listo, viewer }, { number: params.number, action: 'note' });
    const texts = await readTexts(listo, viewer);
    return fillReadyTexts(
      { listo, viewer },
      params.number,
      texts.map(({ id, name, teamId, text }) => ({ id, name, teamId, text })),
    );
  });
};
