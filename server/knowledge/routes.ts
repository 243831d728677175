import { api } from '../../contract';
import { readsDesk } from '../../core/rights';
import { ProblemError } from '../http/problems';
import { serve, type Routes } from '../http/serve';
import type { SignedIn } from '../sessions/viewer';
import { findArticles } from './find';
import { readHealth, readUnanswered } from './health';
import { createArticle, moveArticle, updateArticle } from './keep';
import { draftFromTicket, findForTicket, readSharing, sayNothing, shareArticle } from './ofTicket';
import { browseArticles, listArticles, listVersions, readArticle, readDraft } from './read';
import { readSynonyms, setSynonyms } from './synonyms';
import { readUse } from './use';
import { keepJudgement, keepOpened, keepQuestion } from './uses';

function refuseOthers(viewer: SignedIn): void {
  if (!readsDesk(viewer)) throw new ProblemError('forbidden');
}

export const knowledgeRoutes: Routes = (router, listo) => {
  const { knowledge } = api;
  serve(router, knowledge.search, ({ viewer, query }) => findArticles(listo, viewer, query));
  serve(router, knowledge.asked, ({ viewer, actor, body }) => keepQuestion({ listo, viewer, actor }, body));
  serve(router, knowledge.browse, ({ viewer }) => browseArticles(listo, viewer));
  serve(router, knowledge.read, ({ viewer, params, query }) =>
    readArticle(listo, viewer as SignedIn | undefined, { id: params.id, wanted: query.language }),
  );
  serve(router, knowledge.opened, ({ viewer, actor, params, body }) =>
    keepOpened({ listo, viewer, actor }, { articleId: params.id, ...body }),
  );
  serve(router, knowledge.judge, ({ viewer, actor, params, body }) =>
    keepJudgement({ listo, viewer, actor }, { articleId: params.id, ...body }),
  );
  serve(router, knowledge.list, ({ viewer }) => listArticles(listo, viewer));
  serve(router, knowledge.get, ({ viewer, params }) => readDraft(listo, viewer, params.id));
  serve(router, knowledge.create, ({ viewer, actor, body }) => createArticle({ listo, viewer, actor }, body));
  serve(router, knowledge.update, ({ viewer, actor, params, body }) =>
    updateArticle({ listo, viewer }, { actor, id: params.id }, body),
  );
  serve(router, knowledge.move, ({ viewer, actor, params, body }) =>
    moveArticle({ listo, viewer }, { actor, id: params.id }, body),
  );
  serve(router, knowledge.versions, ({ viewer, params }) => listVersions(listo, viewer, params.id));
  serve(router, knowledge.use, ({ viewer, params, query }) =>
    readUse({ listo, viewer }, params.id, query.days),
  );
  serve(router, knowledge.synonyms, ({ viewer }) => {
    refuseOthers(viewer);
    return readSynonyms(listo);
  });
  serve(router, knowledge.setSynonyms, ({ viewer, actor, body }) =>
    setSynonyms({ listo, viewer, actor }, body),
  );
  serve(router, knowledge.health, ({ viewer, query }) => {
    refuseOthers(viewer);
    return readHealth(listo, viewer, query.days);
  });
  serve(router, knowledge.unanswered, ({ viewer, query }) => {
    refuseOthers(viewer);
    return readUnanswered(listo, viewer, query.days);
  });
  serve(router, knowledge.forTicket, ({ viewer, params, query }) =>
    findForTicket({ listo, viewer }, params.number, query.q),
  );
  serve(router, knowledge.share, ({ viewer, actor, params, body }) =>
    shareArticle(listo, { viewer, actor }, { number: params.number, articleId: params.id, text: body.text }),
  );
  serve(router, knowledge.shareText, ({ viewer, params }) =>
    readSharing(listo, viewer, { number: params.number, articleId: params.id }),
  );
  serve(router, knowledge.nothing, ({ viewer, actor, params, body }) =>
    sayNothing(listo, { viewer, actor }, { number: params.number, isNothing: body.isNothing }),
  );
  serve(router, knowledge.fromTicket, ({ viewer, params }) => draftFromTicket(listo, viewer, params.number));
};
