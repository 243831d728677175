import { serialize } from 'cookie';
import type { Request, Response } from 'express';
import { rateLimit } from 'express-rate-limit';
import { api } from '../../contract';
import { ProblemError } from '../http/problems';
import { OK, serve, type Routes } from '../http/serve';
import { record } from '../journal/append';
import type { Listo } from '../listo';
import { listDemoPeople } from './demoPeople';
import { readSignOn } from './access';
import { beginFactor, checkFactor, confirmFactor, readFactor, removeFactor } from './factor';
import { readMe } from './me';
import type { SessionWay } from './model';
import { beginSession, changePassword, checkPassword, endOtherSessions, endSession } from './sessions';
import { needsSetUp, setUp } from './setUp';
import { forgetViewers, type SignedIn } from './viewer';

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

/** Signs someone in at a browser who has shown who they are. @returns the session's id */
export async function signIn(
  listo: Listo,
  personId: string,
  { request, response, way }: { request: Request; response: Response; way: SessionWay },
): Promise<string> {
  const userAgent = request.get('User-Agent') ?? '';
  const { id, token } = await beginSession(listo, personId, { userAgent, way });
  const data = { personId, address: request.ip ?? '' };
  await record(listo, { by: personId, type: 'signedIn', data });
  setCookie(listo, response, { token });
  return id;
}

/** Who has signed in at a browser, also where a second factor is still asked of them. */
function whoEnters({ viewer, entering }: Request): SignedIn {
  const person = viewer?.byKey ? undefined : (viewer ?? entering);
  if (!person) throw new ProblemError('notSignedIn');
  return person;
}

async function isDemo(listo: Listo): Promise<boolean> {
  return (await listo.db.tables.settings.findOne({ name: 'demo' })) !== null;
}

/** How one may come in here. */
async function readWaysIn(listo: Listo) {
  const { passwordsOnlyOf } = await readSignOn(listo);
  return { providers: await listo.ports.sessions.providers(listo), hasPasswords: passwordsOnlyOf === null };
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
  router.use(['/session', '/setup', '/my/password', '/my/second-factor', '/invitations'], limiter);

  serve(router, session.get, async ({ request }) => ({
    // A program is nobody who is signed in.
    me: request.viewer && !request.viewer.byKey ? await readMe(listo, request.viewer) : null,
    isDemo: await isDemo(listo),
    needsSetup: await needsSetUp(listo),
    mustSetFactor: request.entering !== undefined,
    // Whoever is in has no need of the ways in.
    waysIn: request.viewer ? null : await readWaysIn(listo),
    now: listo.clock.now(),
  }));

  serve(router, session.signIn, async ({ body, request, response }) => {
    const address = request.ip ?? '';
    const personId = await checkPassword(listo, body, address).catch(async (error: unknown) => {
      if (error instanceof ProblemError && error.problem === 'codeNeeded') throw error;
      const data = { name: body.email.slice(0, 200), address };
      await record(listo, { by: null, type: 'signInFailed', data });
      throw error;
    });
    await signIn(listo, personId, { request, response, way: 'password' });
    return OK;
  });

  serve(router, session.signInDemo, async ({ body, request, response }) => {
    const person = (await isDemo(listo))
      ? await tables.people.findOne({ id: body.personId, leftAt: null })
      : null;
    if (!person) throw new ProblemError('notFound');
    await signIn(listo, person.id, { request, response, way: 'demo' });
    return OK;
  });

  serve(router, session.signOut, async ({ request, response }) => {
    const { id, sessionId } = whoEnters(request);
    await endSession(listo, id, sessionId);
    await record(listo, { by: id, type: 'signedOut', data: { personId: id } });
    setCookie(listo, response, { token: '', maxAge: 0 });
    return { goOnAt: await listo.ports.sessions.ended(listo, sessionId) };
  });

  serve(router, session.factor, ({ request }) => readFactor(listo, whoEnters(request).id));
  serve(router, session.beginFactor, async ({ request }) => {
    const person = (await tables.people.findOne({ id: whoEnters(request).id }))!;
    return beginFactor(listo, person);
  });
  serve(router, session.confirmFactor, async ({ request, body }) => ({
    spares: await confirmFactor(listo, whoEnters(request).id, body.code),
  }));
  serve(router, session.removeFactor, async ({ viewer, body }) => {
    await checkFactor(listo, viewer.id, body.code);
    await removeFactor(listo, viewer.id, viewer.id);
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
    await signIn(listo, personId, { request, response, way: 'password' });
    return OK;
  });
};
