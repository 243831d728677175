import { api } from '../../contract';
import { isAgent } from '../../core/rights';
import { countAudience } from '../catalogue/audience';
import { ProblemError } from '../http/problems';
import { serve, type Routes } from '../http/serve';
import { followNotice } from './follow';
import { callBackNotice, createNotice, endNotice, reviewNotice, sayOfNotice, updateNotice } from './keep';
import { readNotice } from './page';
import { listMine, listNotices, listOpenNotices, readNoticesOf } from './read';
import { readServiceTime, setPromised } from './serviceTime';
import { tieTickets, untieTicket } from './tie';

export const noticeRoutes: Routes = (router, listo) => {
  const { notices } = api;
  serve(router, notices.mine, ({ viewer, query }) => listMine({ listo, viewer }, query));
  serve(router, notices.open, () => listOpenNotices(listo));
  serve(router, notices.list, ({ viewer, query }) => listNotices({ listo, viewer }, query));
  serve(router, notices.create, ({ viewer, actor, body }) => createNotice({ listo, viewer, actor }, body));
  serve(router, notices.reach, async ({ viewer, body }) => {
    if (!isAgent(viewer)) throw new ProblemError('forbidden');
    return { people: await countAudience(listo, body.audience) };
  });
  serve(router, notices.get, ({ viewer, params }) => readNotice({ listo, viewer }, params.id));
  serve(router, notices.update, ({ viewer, actor, params, body }) =>
    updateNotice({ listo, viewer, actor }, params.id, body),
  );
  serve(router, notices.say, ({ viewer, actor, params, body }) =>
    sayOfNotice({ listo, viewer, actor }, params.id, body),
  );
  serve(router, notices.end, ({ viewer, actor, params, body }) =>
    endNotice({ listo, viewer, actor }, params.id, body),
  );
  serve(router, notices.callBack, ({ viewer, actor, params }) =>
    callBackNotice({ listo, viewer, actor }, params.id),
  );
  serve(router, notices.review, ({ viewer, actor, params, body }) =>
    reviewNotice({ listo, viewer, actor }, params.id, body),
  );
  serve(router, notices.follow, ({ viewer, actor, params, body }) =>
    followNotice({ listo, viewer, actor }, params.id, body.isFollowed),
  );
  serve(router, notices.tie, ({ viewer, actor, params, body }) =>
    tieTickets({ listo, viewer, actor }, params.id, body.numbers),
  );
  serve(router, notices.untie, ({ viewer, actor, params }) => untieTicket({ listo, viewer, actor }, params));
  serve(router, notices.serviceTime, ({ viewer, params, query }) =>
    readServiceTime({ listo, viewer }, params.id, query.months),
  );
  serve(router, notices.setPromised, ({ viewer, actor, params, body }) =>
    setPromised({ listo, viewer, actor }, params.id, body.calendarId),
  );
  serve(router, notices.ofTicket, ({ viewer, params }) => readNoticesOf({ listo, viewer }, params.number));
};
