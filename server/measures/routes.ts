import { api } from '../../contract';
import { getFactField } from '../../core/measures';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK, serve, type Routes } from '../http/serve';
import { requireFigures } from './ask';
import { createBoard, listBoards, readBoard, removeBoard, updateBoard } from './boards';
import { askForFacts } from './facts';
import { readNames } from './names';
import { outRoutes } from './out';
import { listBehind, readChart } from './read';

export const measureRoutes: Routes = (router, listo) => {
  const { measures } = api;
  serve(router, measures.chart, ({ viewer, body }) => readChart({ listo, viewer }, body));
  serve(router, measures.behind, ({ viewer, body }) => listBehind({ listo, viewer }, body));
  serve(router, measures.values, async ({ viewer, query: { of, field } }) => {
    requireFigures({ listo, viewer });
    if (getFactField(of, field)?.is !== 'split') throw new ProblemError('notFound');
    const names = await readNames(listo, { field, language: viewer.language }, null);
    return [...names].map(([key, name]) => ({ key, name }));
  });
  serve(router, measures.boards, ({ viewer }) => listBoards({ listo, viewer }));
  serve(router, measures.createBoard, ({ viewer, actor, body }) =>
    createBoard({ listo, viewer, actor }, body),
  );
  serve(router, measures.board, ({ viewer, params }) => readBoard({ listo, viewer }, params.id));
  serve(router, measures.updateBoard, ({ viewer, actor, params, body }) =>
    updateBoard({ listo, viewer, actor }, params.id, body),
  );
  serve(router, measures.removeBoard, ({ viewer, actor, params }) =>
    removeBoard({ listo, viewer, actor }, params.id),
  );
  serve(router, measures.gatherAnew, ({ viewer, actor }) => {
    if (!viewer.isAdministrator) throw new ProblemError('forbidden');
    return change(listo, actor, async (tx) => {
      await askForFacts({ listo, tx });
      return OK;
    });
  });
  outRoutes(router, listo);
};
