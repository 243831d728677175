import { api } from '../../contract';
import { readsDesk } from '../../core/rights';
import { ProblemError } from '../http/problems';
import { serve, type Routes } from '../http/serve';
import { listTalks, readAssistantFigures, readTalk } from './figures';
import {
  createMatter,
  judgeHeard,
  mayTeach,
  readInsight,
  requireTeacher,
  setWanted,
  tryWords,
  updateMatter,
} from './matters';
import { readOwnWords, setOwnWords } from './words';
import { rateTalk, readOwnTalk, say, startTalk } from './talks';

export const assistantRoutes: Routes = (router, listo) => {
  const { assistant } = api;
  serve(router, assistant.start, ({ viewer, actor, body }) =>
    startTalk({ listo, viewer, actor }, body.isAnew),
  );
  serve(router, assistant.say, ({ viewer, actor, params, body }) =>
    say(listo, { viewer, actor, id: params.id }, { input: body.input }),
  );
  serve(router, assistant.mine, ({ viewer, params }) => readOwnTalk(listo, viewer, params.id));
  serve(router, assistant.rate, ({ viewer, actor, params, body }) =>
    rateTalk(listo, { viewer, actor, id: params.id }, body.rating),
  );
  serve(router, assistant.matters, async ({ viewer }) => {
    if (!readsDesk(viewer)) throw new ProblemError('forbidden');
    const rows = await listo.db.tables.matters.find({}, { order: ['id'] });
    return rows.map(({ changedAt: _, ...row }) => ({ ...row, mayEdit: mayTeach(viewer) }));
  });
  serve(router, assistant.create, ({ viewer, actor, body }) => createMatter({ listo, viewer, actor }, body));
  serve(router, assistant.update, ({ viewer, actor, params, body }) =>
    updateMatter({ listo, viewer }, { actor, id: params.id }, body),
  );
  serve(router, assistant.understood, ({ viewer, query }) =>
    tryWords({ listo, viewer }, query.q, query.language),
  );
  serve(router, assistant.insight, ({ viewer }) => readInsight(listo, viewer));
  serve(router, assistant.setWanted, ({ viewer, actor, body }) =>
    setWanted({ listo, viewer, actor }, body.wanted),
  );
  serve(router, assistant.judgeHeard, ({ viewer, actor, params, body }) =>
    judgeHeard({ listo, viewer }, { actor, id: params.id }, body.accept),
  );
  serve(router, assistant.words, ({ viewer }) => {
    requireTeacher(viewer);
    return readOwnWords(listo);
  });
  serve(router, assistant.setWords, ({ viewer, actor, body }) => setOwnWords({ listo, viewer, actor }, body));
  serve(router, assistant.figures, ({ viewer, query }) => readAssistantFigures(listo, viewer, query.days));
  serve(router, assistant.talks, ({ viewer, query }) => listTalks(listo, viewer, query));
  serve(router, assistant.read, ({ viewer, params }) => readTalk(listo, viewer, params.id));
};
