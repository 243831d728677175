import { api } from '../../contract';
import { mayKeepPrograms } from '../../core/rights';
import { ProblemError } from '../http/problems';
import { serve, type Routes } from '../http/serve';
import type { SignedIn } from '../sessions/viewer';
import { listDeliveries, readDelivery, sendAgain } from './deliveries';
import { createWebhook, listWebhooks, removeWebhook, switchWebhook, tryWebhook, updateWebhook } from './keep';

function requireKeeper(viewer: SignedIn): void {
  if (!mayKeepPrograms(viewer)) throw new ProblemError('forbidden');
}

export const webhookRoutes: Routes = (router, listo) => {
  const { webhooks } = api;
  serve(router, webhooks.list, async ({ viewer, params }) => {
    requireKeeper(viewer);
    return listWebhooks(listo, params.id);
  });
  serve(router, webhooks.create, async ({ viewer, actor, params, body }) => {
    requireKeeper(viewer);
    return createWebhook({ listo, viewer, actor }, params.id, body);
  });
  serve(router, webhooks.update, async ({ viewer, actor, params, body }) => {
    requireKeeper(viewer);
    return updateWebhook({ listo, viewer, actor }, params.id, body);
  });
  serve(router, webhooks.switch, async ({ viewer, actor, params, body }) => {
    requireKeeper(viewer);
    return switchWebhook({ listo, viewer, actor }, params.id, body);
  });
  serve(router, webhooks.remove, async ({ viewer, actor, params }) => {
    requireKeeper(viewer);
    return removeWebhook({ listo, viewer, actor }, params.id);
  });
  serve(router, webhooks.try, async ({ viewer, actor, params }) => {
    requireKeeper(viewer);
    return tryWebhook({ listo, viewer, actor }, params.id);
  });
  serve(router, webhooks.deliveries, async ({ viewer, params, query }) => {
    requireKeeper(viewer);
    return listDeliveries(listo, params.id, query);
  });
  serve(router, webhooks.delivery, async ({ viewer, params }) => {
    requireKeeper(viewer);
    return readDelivery(listo, params.id);
  });
  serve(router, webhooks.sendAgain, async ({ viewer, actor, params }) => {
    requireKeeper(viewer);
    return sendAgain({ listo, viewer, actor }, { id: params.id });
  });
  serve(router, webhooks.sendAllAgain, async ({ viewer, actor, params }) => {
    requireKeeper(viewer);
    return sendAgain({ listo, viewer, actor }, { webhookId: params.id });
  });
};
