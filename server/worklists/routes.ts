import { find, readMine } from './find';
import { api } from '../../contract';
import { serve, type Routes } from '../http/serve';
import { createList, findDefinition, parseWhere, readLists, removeList, updateList } from './lists';
import { readLoad } from './load';
import { setOrder, tryOrder } from './order';
import { readPage, readRowsOf, type Seen } from './page';
import { readShares } from './shares';

export const worklistRoutes: Routes = (router, listo) => {
  const { tickets } = api;
  serve(router, tickets.mine, ({ viewer, query }) =>
    readMine(listo, viewer, { which: query.which, before: query.before }),
  );
  serve(router, tickets.find, ({ viewer, query }) => find(listo, viewer, query.q));
  const { worklists } = api;
  type Asked = { where?: string | undefined } & Pick<Seen, 'order' | 'groupBy'>;
  const seenBy = async (
    viewer: Parameters<typeof findDefinition>[1],
    id: string,
    asked: Asked,
  ): Promise<Seen> => ({
    definition: await findDefinition(listo, viewer, id),
    where: parseWhere(asked.where),
    order: asked.order,
    groupBy: asked.groupBy,
  });
  serve(router, worklists.list, ({ viewer }) => readLists(listo, viewer));
  serve(router, worklists.create, ({ viewer, actor, body }) => createList({ listo, viewer, actor }, body));
  serve(router, worklists.update, ({ viewer, actor, params, body }) =>
    updateList({ listo, viewer, actor }, params.id, body),
  );
  serve(router, worklists.remove, ({ viewer, actor, params }) =>
    removeList({ listo, viewer, actor }, params.id),
  );
  serve(router, worklists.page, async ({ viewer, params, query }) =>
    readPage({ listo, viewer }, await seenBy(viewer, params.id, query), query),
  );
  serve(router, worklists.rows, async ({ viewer, params, query }) =>
    readRowsOf(
      { listo, viewer },
      await seenBy(viewer, params.id, query),
      query.numbers.split(',').map(Number),
    ),
  );
  serve(router, worklists.shares, async ({ viewer, params, query }) =>
    readShares({ listo, viewer }, await findDefinition(listo, viewer, params.id), {
      where: parseWhere(query.where),
      by: query.by.split(','),
    }),
  );
  serve(router, worklists.load, async ({ viewer, params, query }) =>
    readLoad({ listo, viewer }, await findDefinition(listo, viewer, params.id), parseWhere(query.where)),
  );
  serve(router, worklists.tryOrder, ({ viewer, params, body }) =>
    tryOrder({ listo, viewer }, params.id, body.weights),
  );
  serve(router, worklists.setOrder, ({ viewer, actor, params, body }) =>
    setOrder({ listo, viewer, actor }, params.id, body),
  );
};
