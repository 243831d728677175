import type { Router } from 'express';
import { api } from '../../contract';
import { mayKeepPeople } from '../../core/rights';
import type { FileStore } from '../files/store';
import { inTurn } from '../http/limits';
import { ProblemError } from '../http/problems';
import { serve } from '../http/serve';
import type { Listo } from '../listo';
import { sendArchive } from './archive';
import { countOf, erase } from './erase';

export function privacyRoutes(router: Router, listo: Listo, store: FileStore): void {
  const { privacy } = api;
  serve(router, privacy.counts, async ({ viewer, params }) => {
    if (!mayKeepPeople(viewer)) throw new ProblemError('forbidden');
    return countOf(listo, params.id);
  });
  serve(router, privacy.erase, async ({ viewer, actor, params, body }) => {
    if (!mayKeepPeople(viewer)) throw new ProblemError('forbidden');
    return erase({ listo, viewer, actor }, store, { personId: params.id, ...body });
  });
  router.get(['/my/archive', '/workshop/people/:id/archive'], async ({ viewer, params }, response) => {
    if (!viewer) throw new ProblemError('notSignedIn');
    const personId = (params as { id?: string }).id ?? viewer.id;
    if (personId !== viewer.id && !mayKeepPeople(viewer)) throw new ProblemError('forbidden');
    await inTurn(viewer.id, () => sendArchive({ listo, viewer }, { personId, store, response }));
  });
}
