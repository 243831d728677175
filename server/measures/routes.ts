import { api } from '../../contract';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK, serve, type Routes } from '../http/serve';
import { createBoard, listBoards, readBoard, removeBoard, updateBoard } from './boards';
import { askForFacts } from './facts';
import { outRoutes } from './out';
import { listBehind, readChart } from './read';

export const measureRoutes: Routes = (router, listo) => {
  const { measures } = api;
  serve(router, measures.chart, ({ viewer, body }) => readChart({ listo, viewer }, body));
  serve(router, measures.behind, ({ viewer, body }) => listBehind({ listo, viewer }, body));
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
