import { api } from '../../contract';
import { ProblemError } from '../http/problems';
import { serve, type Routes } from '../http/serve';
import type { SignedIn } from '../sessions/viewer';
import { comeBackAgain, leave, readLeaving } from './leaving';

type Card = { id: string; name: string; goesFirst: boolean | number; title: string; site: string };

export const leavingRoutes: Routes = (router, listo) => {
  const { people } = api;
  const mustAdminister = ({ isAdministrator }: SignedIn): void => {
    if (!isAdministrator) throw new ProblemError('forbidden');
  };
  serve(router, people.leavers, async ({ viewer }) => {
    mustAdminister(viewer);
    const rows = await listo.db.select<Card & { leftAt: number }>(
      `SELECT p.id, p.name, p.goesFirst, p.title, s.name AS site, p.leftAt FROM people p JOIN sites s ON s.id = p.siteId
       WHERE p.leftAt IS NOT NULL ORDER BY p.leftAt DESC, p.name LIMIT 200`,
    );
    return rows.map((row) => ({ ...row, goesFirst: Boolean(row.goesFirst) }));
  });
  serve(router, people.leaving, async ({ viewer, params }) => {
    mustAdminister(viewer);
    return readLeaving(listo, params.id);
  });
  serve(router, people.leave, async ({ viewer, actor, params, body }) => {
    mustAdminister(viewer);
    return leave({ listo, viewer, actor }, params.id, body.version);
  });
  serve(router, people.comeBack, async ({ viewer, actor, params, body }) => {
    mustAdminister(viewer);
    return comeBackAgain({ listo, viewer, actor }, params.id, body.version);
  });
};
