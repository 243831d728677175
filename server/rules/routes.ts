import { api } from '../../contract';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK, serve, type Routes } from '../http/serve';
import { undoEntry } from '../tickets/undo';
import { createRule, orderRules, removeRule, switchRule, updateRule } from './keep';
import { listRules } from './list';
import { explainRules, tryOrder, tryRule } from './trial';

export const ruleRoutes: Routes = (router, listo) => {
  const { rules } = api;
  serve(router, rules.list, ({ viewer }) => listRules({ listo, viewer }));
  serve(router, rules.create, ({ viewer, actor, body }) => createRule({ listo, viewer, actor }, body));
  serve(router, rules.order, ({ viewer, actor, body }) => orderRules({ listo, viewer, actor }, body.ids));
  serve(router, rules.orderEffect, ({ viewer, body }) => tryOrder({ listo, viewer }, body.ids));
  serve(router, rules.trial, ({ viewer, body }) => tryRule({ listo, viewer }, body));
  serve(router, rules.update, ({ viewer, actor, params, body }) =>
    updateRule({ listo, viewer, actor }, params.id, body),
  );
  serve(router, rules.switch, ({ viewer, actor, params, body }) =>
    switchRule({ listo, viewer, actor }, params.id, body),
  );
  serve(router, rules.remove, ({ viewer, actor, params }) => removeRule({ listo, viewer, actor }, params.id));
  serve(router, rules.ofTicket, ({ viewer, params }) => explainRules({ listo, viewer }, params.number));
  serve(router, rules.undo, ({ viewer, actor, params: { number, entryId } }) =>
    change(listo, actor, async (tx) => {
      const entry = await listo.db.tables.journal.findOne({ id: entryId, ticketNumber: number }, tx);
      // What people did is taken back by themselves.
      if (!entry?.byRules?.length) throw new ProblemError('notFound');
      await undoEntry({ listo, tx, viewer }, { number, entryId });
      return OK;
    }),
  );
};
