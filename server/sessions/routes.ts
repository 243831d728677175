import { serialize } from 'cookie';
import type { Request, Response } from 'express';
import { rateLimit } from 'express-rate-limit';
import { api } from '../../contract';
import { ProblemError } from '../http/problems';
import { OK, serve, type Routes } from '../http/serve';
import { record } from '../journal/append';
import type { Listo } from '../listo';
import { listDemoPeople } from './demoPeople';
import { readMe } from './me';
import { beginSession, changePassword, checkPassword, endOtherSessions, endSession } from './sessions';
import { needsSetUp, setUp } from './setUp';
import { forgetViewers } from './viewer';

const COOKIE = 'listo-session';

/** Whether browsers come over TLS, here or at what stands in front. */
export const isOverTls = ({ config }: Listo): boolean =>
  config.LISTO_SECURE_COOKIES === 'true' || (config.LISTO_ADDRESS ?? '').startsWith('https:');

/** How the cookie is called; over TLS by the prefix that no other host can set (RFC 6265bis, 4.1.3.2). */
export const sessionCookie = (listo: Listo): string => (isOverTls(listo) ? `__Host-${COOKIE}` : COOKIE);
const MAX_AGE_S = 14 * 86_400;

function setCookie(
  listo: Listo,
  response: Response,
  { token, maxAge = MAX_AGE_S }: { token: string; maxAge?: number },
): void {
  const secure = isOverTls(listo);
  response.append(
    'Set-Cookie',
    serialize(sessionCookie(listo), token, { httpOnly: true, sameSite: 'lax', path: '/', maxAge, secure }),
  );
}

/** Signs someone in at a browser who has shown who they are. */
export async function signIn(
  listo: Listo,
  personId: string,
  { request, response }: { request: Request; response: Response },
): Promise<void> {
  const token = await beginSession(listo, personId, request.get('User-Agent') ?? '');
  const data = { personId, address: request.ip ?? '' };
  await record(listo, { by: personId, type: 'signedIn', data });
  setCookie(listo, response, { token });
}

async function isDemo(listo: Listo): Promise<boolean> {
  return (await listo.db.tables.settings.findOne({ name: 'demo' })) !== null;
}

export const sessionRoutes: Routes = (router, listo) => {
  const { session } = api;
  const { tables } = listo.db;
  const limiter = rateLimit({
    windowMs: 15 * 60_000,
    limit: listo.config.LISTO_SIGN_IN_LIMIT,
    legacyHeaders: false,
    standardHeaders: true,
    skip: ({ method }) => method !== 'POST' && method !== 'PUT',
    handler: () => {
      throw new ProblemError('tooManyTries');
    },
  });
  router.use(['/session', '/setup', '/my/password', '/invitations'], limiter);

  serve(router, session.get, async ({ request }) => ({
    // A program is nobody who is signed in.
    me: request.viewer && !request.viewer.byKey ? await readMe(listo, request.viewer) : null,
    isDemo: await isDemo(listo),
    needsSetup: await needsSetUp(listo),
    now: listo.clock.now(),
  }));

  serve(router, session.signIn, async ({ body, request, response }) => {
    const address = request.ip ?? '';
    const personId = await checkPassword(listo, body, address).catch(async (error: unknown) => {
      const data = { name: body.email.slice(0, 200), address };
      await record(listo, { by: null, type: 'signInFailed', data });
      throw error;
    });
    await signIn(listo, personId, { request, response });
    return OK;
  });

  serve(router, session.signInDemo, async ({ body, request, response }) => {
    const person = (await isDemo(listo))
      ? await tables.people.findOne({ id: body.personId, leftAt: null })
      : null;
    if (!person) throw new ProblemError('notFound');
    await signIn(listo, person.id, { request, response });
    return OK;
  });

  serve(router, session.signOut, async ({ viewer, response }) => {
    await endSession(listo, viewer.id, viewer.sessionId);
    await record(listo, { by: viewer.id, type: 'signedOut', data: { personId: viewer.id } });
    setCookie(listo, response, { token: '', maxAge: 0 });
    return OK;
  });

  serve(router, session.demoPeople, async () => ((await isDemo(listo)) ? listDemoPeople(listo) : []));

  serve(router, session.list, async ({ viewer }) => {
    const rows = await tables.sessions.find({ personId: viewer.id }, { order: [['seenAt', 'DESC']] });
    const live = rows.filter(({ expiresAt }) => expiresAt > listo.clock.now());
    // The shown id is a part of the hash: enough to name a session, useless for signing in.
    return live.map(({ id, createdAt, seenAt, userAgent }) => ({
      id: id.slice(0, 40),
      createdAt,
      seenAt,
      userAgent,
      isThis: id === viewer.sessionId,
    }));
  });

  serve(router, session.end, async ({ viewer, params }) => {
    const rows = await tables.sessions.find({ personId: viewer.id });
    const row = rows.find(({ id }) => id.startsWith(params.id) && params.id.length === 40);
    await endSession(listo, viewer.id, row?.id ?? '');
    return OK;
  });

  serve(router, session.endOthers, async ({ viewer }) => ({
    ended: await endOtherSessions(listo, viewer.id, viewer.sessionId),
  }));

  serve(router, session.password, async ({ viewer, body, request }) => {
    const { id, sessionId } = viewer;
    await changePassword(listo, { id, sessionId, address: request.ip ?? '' }, body);
    return OK;
  });

  serve(router, session.setLanguage, async ({ viewer, body }) => {
    await tables.people.update({ id: viewer.id }, { language: body.language });
    forgetViewers(listo);
    return OK;
  });

  serve(router, session.setUp, async ({ body, request, response }) => {
    const personId = await setUp(listo, body);
    await signIn(listo, personId, { request, response });
    return OK;
  });
};
