import { api } from '../../contract';
import { isAgent } from '../../core/rights';
import { serve, type Routes } from '../http/serve';
import { changeAnswers } from './changeAnswers';
import { changeFacts } from './changeFacts';
import { createTicket } from './create';
import { addFollower, removeFollower } from './followers';
import { write } from './messages';
import { moveTicket } from './move';
import { readTicket } from './read';
import { changeRequester, changeService } from './refile';
import { undoMove } from './undo';

export const ticketRoutes: Routes = (router, listo) => {
  const { tickets } = api;
  serve(router, tickets.create, ({ viewer, actor, body }) =>
    // What a caller does not know is asked later.
    createTicket({ listo, viewer, actor }, body, {
      isLenient: isAgent(viewer) && body.requesterId !== undefined && body.via !== 'portal',
    }),
  );
  serve(router, tickets.get, ({ viewer, params }) => readTicket(listo, viewer, params.number));
  serve(router, tickets.change, ({ viewer, actor, params, body }) =>
    changeFacts({ listo, viewer, actor }, params.number, body),
  );
  serve(router, tickets.answers, ({ viewer, actor, params, body }) =>
    changeAnswers({ listo, viewer, actor }, params.number, body),
  );
  serve(router, tickets.changeService, ({ viewer, actor, params, body }) =>
    changeService({ listo, viewer, actor }, params.number, body),
  );
  serve(router, tickets.changeRequester, ({ viewer, actor, params, body }) =>
    changeRequester({ listo, viewer, actor }, params.number, body),
  );
  serve(router, tickets.move, ({ viewer, actor, params, body }) =>
    moveTicket({ listo, viewer, actor }, params.number, body),
  );
  serve(router, tickets.undo, ({ viewer, actor, params, body }) =>
    undoMove(listo, { viewer, actor, number: params.number }, body.version),
  );
  serve(router, tickets.write, ({ viewer, actor, params, body }) =>
    write({ listo, viewer, actor }, params.number, { words: body }),
  );
  serve(router, tickets.follow, ({ viewer, actor, params, body }) =>
    addFollower(listo, { viewer, actor, number: params.number }, body),
  );
  serve(router, tickets.unfollow, ({ viewer, actor, params, body }) =>
    removeFollower(listo, { viewer, actor, number: params.number }, body),
  );
};
