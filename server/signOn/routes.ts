import { parse, serialize } from 'cookie';
import { Router, type RequestHandler, type Response } from 'express';
import { rateLimit } from 'express-rate-limit';
import { api } from '../../contract';
import { mayKeepPeople } from '../../core/rights';
import { ProblemError } from '../http/problems';
import { serve, type Routes } from '../http/serve';
import { record } from '../journal/append';
import type { Listo } from '../listo';
import { isOverTls, signIn } from '../sessions/routes';
import type { SignedIn } from '../sessions/viewer';
import { NotLetIn } from './arrive';
import { beginFlow, finishFlow, NotBegunHere, toOwnPage } from './flow';
import {
  checkProvider,
  createProvider,
  readSignOnPage,
  removeProvider,
  setSignOn,
  updateProvider,
} from './keep';

function mustKeep(viewer: SignedIn): void {
  if (!mayKeepPeople(viewer)) throw new ProblemError('forbidden');
}

/** Where and how people sign in, as administrators set it. */
export const signOnRoutes: Routes = (router, listo) => {
  const { signOn } = api;
  serve(router, signOn.get, async ({ viewer }) => {
    mustKeep(viewer);
    return readSignOnPage(listo);
  });
  serve(router, signOn.set, async ({ viewer, actor, body }) => {
    mustKeep(viewer);
    return setSignOn({ listo, viewer, actor }, body);
  });
  serve(router, signOn.create, async ({ viewer, actor, body }) => {
    mustKeep(viewer);
    return createProvider({ listo, viewer, actor }, body);
  });
  serve(router, signOn.update, async ({ viewer, actor, params, body }) => {
    mustKeep(viewer);
    return updateProvider({ listo, viewer, actor }, params.id, body);
  });
  serve(router, signOn.remove, async ({ viewer, actor, params }) => {
    mustKeep(viewer);
    return removeProvider({ listo, viewer, actor }, params.id);
  });
  serve(router, signOn.check, async ({ viewer, params }) => {
    mustKeep(viewer);
    return checkProvider(listo, params.id);
  });
};

/** Holds the state of a sign-in under way: only the browser that began it can end it. */
const cookieName = (listo: Listo): string => (isOverTls(listo) ? '__Host-listo-sign-on' : 'listo-sign-on');
const COOKIE_S = 600;

function setState(listo: Listo, response: Response, state: string | null): void {
  const maxAge = state === null ? 0 : COOKIE_S;
  const secure = isOverTls(listo);
  response.append(
    'Set-Cookie',
    serialize(cookieName(listo), state ?? '', { httpOnly: true, sameSite: 'lax', path: '/', maxAge, secure }),
  );
}

/** The page to sign in at, saying why it did not work. */
const sorry = (code: string): string => `/ask?signOn=${code}`;

/** What somebody reads who was not let in. What a provider said in detail stands in the log alone. */
function codeOf(listo: Listo, error: unknown): string {
  if (error instanceof NotLetIn) return error.code;
  if (error instanceof NotBegunHere) return 'notBegunHere';
  listo.log.warn(error, 'a sign-in at a provider failed');
  // RFC 6749, 4.1.2.1
  return (error as { error?: unknown }).error === 'access_denied' ? 'refusedThere' : 'failed';
}

/** The two addresses that a browser visits on its way to a provider and back. */
export function createSignOnPages(listo: Listo): Router {
  const router = Router();
  const toOwnHost: RequestHandler = (request, response, next) => {
    // The way back leads to the one address that the provider knows: what is remembered must be remembered there.
    if (request.get('Host') === new URL(listo.address).host) next();
    else response.redirect(`${listo.address}${request.originalUrl}`);
  };
  router.use(
    rateLimit({
      ...{ windowMs: 15 * 60_000, limit: listo.config.LISTO_SIGN_IN_LIMIT },
      ...{ legacyHeaders: false, standardHeaders: true },
      handler: (_request, response) => response.redirect(sorry('tooManyTries')),
    }),
  );

  router.get('/return', async (request, response) => {
    const state = parse(request.get('Cookie') ?? '')[cookieName(listo)];
    setState(listo, response, null);
    response.set('Cache-Control', 'no-store');
    try {
      const query = request.originalUrl.split('?')[1] ?? '';
      const { personId, back, remember } = await finishFlow(listo, query, state);
      await remember(await signIn(listo, personId, { request, response, way: 'provider' }));
      response.redirect(back);
    } catch (error) {
      const code = codeOf(listo, error);
      const data = { name: code, address: request.ip ?? '' };
      await record(listo, { by: null, type: 'signInFailed', data });
      response.redirect(sorry(code));
    }
  });

  router.get('/:id', toOwnHost, async (request, response) => {
    response.set('Cache-Control', 'no-store');
    const { id } = request.params as { id: string };
    const provider = await listo.db.tables.signOnProviders.findOne({ id, isOn: true });
    if (!provider) {
      response.redirect(sorry('notBegunHere'));
      return;
    }
    try {
      const { address, state } = await beginFlow(listo, provider, toOwnPage(request.query.back));
      setState(listo, response, state);
      response.redirect(address.href);
    } catch (error) {
      listo.log.warn(error, 'a provider does not answer');
      response.redirect(sorry('away'));
    }
  });
  return router;
}
