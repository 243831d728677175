import { api } from '../../contract';
import { isInAudience } from '../../core/catalogue';
import { readsDesk } from '../../core/rights';
import { ProblemError } from '../http/problems';
import { serve, type Routes } from '../http/serve';
import { listVersions } from './versions';
import { getKnownFacts } from '../sessions/me';
import type { SignedIn } from '../sessions/viewer';
import { readAudiencePerson, readAudienceWords } from './audience';
import { saveCategories } from './categories';
import {
  createService,
  discardDraft,
  listLines,
  orderServices,
  publish,
  readEdited,
  saveDraft,
  turn,
} from './drafts';

/** The Workshop may be looked at by those who work in a team. */
function requireWorkshop(viewer: SignedIn): void {
  if (!readsDesk(viewer)) throw new ProblemError('forbidden');
}

export const serviceRoutes: Routes = (router, listo) => {
  const { services } = api;
  serve(router, services.list, ({ viewer }) => {
    requireWorkshop(viewer);
    return listLines(listo, viewer);
  });
  serve(router, services.create, ({ viewer, actor, body }) => createService({ listo, viewer, actor }, body));
  serve(router, services.order, ({ viewer, actor, body }) =>
    orderServices({ listo, viewer, actor }, body.ids),
  );
  serve(router, services.audienceWords, ({ viewer }) => {
    requireWorkshop(viewer);
    return readAudienceWords(listo);
  });
  serve(router, services.get, ({ viewer, params }) => {
    requireWorkshop(viewer);
    return readEdited(listo, viewer, params.id);
  });
  serve(router, services.save, ({ viewer, actor, params, body }) =>
    saveDraft({ listo, viewer, actor }, params.id, body),
  );
  serve(router, services.discard, ({ viewer, actor, params }) =>
    discardDraft({ listo, viewer, actor }, params.id),
  );
  serve(router, services.publish, ({ viewer, actor, params, body }) =>
    publish({ listo, viewer, actor }, params.id, body.draftVersion),
  );
  serve(router, services.versions, ({ viewer, params }) => {
    requireWorkshop(viewer);
    return listVersions(listo, viewer, params.id);
  });
  serve(router, services.turn, ({ viewer, actor, params, body }) =>
    turn({ listo, viewer, actor }, params.id, body),
  );
  serve(router, services.tryAs, async ({ viewer, params }) => {
    requireWorkshop(viewer);
    const { definition } = await readEdited(listo, viewer, params.id);
    const row = await listo.db.tables.people.findOne({ id: params.personId, leftAt: null });
    const person = row && (await readAudiencePerson(listo, row.id));
    if (!row || !person) throw new ProblemError('notFound');
    const site = await listo.db.tables.sites.findOne({ id: row.siteId });
    return {
      isForThem: isInAudience(definition.audience, person),
      name: row.name,
      title: row.title,
      known: getKnownFacts(row, site?.name ?? ''),
    };
  });
  serve(router, services.saveCategories, ({ viewer, actor, body }) =>
    saveCategories({ listo, viewer, actor }, body.categories),
  );
};
