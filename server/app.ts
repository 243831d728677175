import compression from 'compression';
import { parse as parseCookies } from 'cookie';
import express, { Router, type Express, type Request, type RequestHandler } from 'express';
import helmet, { noSniff } from 'helmet';
import path from 'node:path';
import { pinoHttp } from 'pino-http';
import { nanoid } from 'nanoid';
import { absenceRoutes } from './absences/routes';
import { approvalRoutes } from './approvals/routes';
import { assistantRoutes } from './assistant/routes';
import { recordRoutes } from './audit/routes';
import { bulkRoutes } from './bulk/routes';
import type { ChatRun } from './chat/chat';
import { clockRoutes } from './clocks/routes';
import { complianceRoutes } from './compliance/routes';
import { createMetrics } from './running/metrics';
import { runningRoutes } from './running/routes';
import { replayRoutes } from './replays/routes';
import { createEventRoutes } from './chat/events';
import { chatRoutes } from './chat/routes';
import { callRoutes } from './calls/routes';
import { calendarRoutes } from './calendars/routes';
import { catalogueRoutes } from './catalogue/routes';
import { serviceRoutes } from './catalogue/workshopRoutes';
import { isMigrated } from './database/migrate';
import { conversationRoutes } from './conversations/routes';
import type { ConversationWire } from './conversations/wire';
import { figureRoutes } from './figures/routes';
import { guardFile } from './fileGuard';
import { fileRoutes } from './files/routes';
import type { FileStore } from './files/store';
import { createErrorHandler } from './http/errors';
import { ProblemError } from './http/problems';
import { createSignOnPages, signOnRoutes } from './signOn/routes';
import { refuseOtherSites } from './http/sameSite';
import { logSlow } from './http/slow';
import { limitCostly } from './http/limits';
import { isStream } from './http/streams';
import type { Listo } from './listo';
import type { Live } from './live/live';
import type { StreamSessions } from './sessions/streams';
import { importRoutes } from './imports/routes';
import { createInterfacePages } from './interface/pages';
import { knowledgeRoutes } from './knowledge/routes';
import { mailRoutes } from './mail/routes';
import { measureRoutes } from './measures/routes';
import { problemRoutes } from './problems/routes';
import { workRoutes } from './works/routes';
import { noticeRoutes } from './notices/routes';
import { notificationRoutes } from './notifications/routes';
import { planRoutes } from './plans/routes';
import { privacyRoutes } from './privacy/routes';
import { recogniseProgram } from './programs/gate';
import { programRoutes } from './programs/routes';
import type { Routes } from './http/serve';
import { leavingRoutes } from './leaving/routes';
import { organisationRoutes } from './organisation/routes';
import { peopleRoutes } from './people/routes';
import { personCardRoutes } from './personCards/routes';
import { routingRoutes } from './routing/routes';
import { estateRoutes } from './estate/routes';
import { ruleRoutes } from './rules/routes';
import { procedureRoutes } from './procedures/routes';
import { readyTextRoutes } from './readyTexts/routes';
import { isOverTls, sessionCookie, sessionRoutes } from './sessions/routes';
import { findViewer } from './sessions/viewer';
import { createDirectory } from './standIns/directory';
import { createMailboxRoutes } from './standIns/mailbox';
import { createStandInProvider } from './standIns/provider';
import { createBotRoutes } from './standIns/rooms/bot';
import { createRoomsRoutes } from './standIns/rooms/routes';
import type { RoomsWire } from './standIns/rooms/wire';
import { effectRoutes } from './recounts/routes';
import { targetRoutes } from './targets/routes';
import { teamRoutes } from './teams/routes';
import { spentRoutes } from './spent/routes';
import { surgeRoutes } from './surge/routes';
import { togetherRoutes } from './together/routes';
import { templateRoutes } from './templates/routes';
import { ticketRoutes } from './tickets/routes';
import { exportRoutes } from './worklists/export';
import { wordsRoutes } from './words/routes';
import { webhookRoutes } from './webhooks/routes';
import { worklistRoutes } from './worklists/routes';

/** Texts may be long; files go another way. */
const BODY_LIMIT = '2mb';

/** Who asks, by the cookie; a stream is theirs only as long as they may read it. */
function recogniseViewer(listo: Listo, streams: StreamSessions): RequestHandler {
  return async (request, response, next) => {
    const token = parseCookies(request.get('Cookie') ?? '')[sessionCookie(listo)];
    const viewer = token ? await findViewer(listo, token) : null;
    if (viewer?.mustSetFactor) request.entering = viewer;
    else if (viewer) request.viewer = viewer;
    if (request.viewer && isStream(request)) streams.watch(response, request.viewer);
    next();
  };
}

/** Answers are for who asked, and for nobody's store; a file says otherwise for itself. */
const keepNothing: RequestHandler = (_request, response, next) => {
  response.set('Cache-Control', 'no-store');
  next();
};

/** Gives each request an id that its problem and its log lines carry; each is logged where that is asked for. */
function identifyRequests(listo: Listo): RequestHandler {
  const genReqId = (): string => nanoid(12);
  if (listo.log.isLevelEnabled('debug')) return pinoHttp({ logger: listo.log, genReqId, useLevel: 'debug' });
  return (request, _response, next) => {
    request.id = genReqId();
    next();
  };
}

/** What only matters to what a browser shows: answers to what is sent are short, and read by the pages' own code alone. */
function whenRead(handle: RequestHandler): RequestHandler {
  return (request, response, next) => {
    if (request.method === 'GET' || request.method === 'HEAD') handle(request, response, next);
    else next();
  };
}

/** Each write of a stream goes straight out. */
function exceptStreams(handle: RequestHandler): RequestHandler {
  return (request, response, next) => {
    if (isStream(request)) next();
    else handle(request, response, next);
  };
}

/** Whether work can be done: the database is up to date and takes what is written. */
async function canWork({ db }: Listo): Promise<boolean> {
  if (!(await isMigrated(db.sequelize))) return false;
  await db.run(
    "INSERT INTO leases (name, holder, until) VALUES ('readyz', '', 0) ON DUPLICATE KEY UPDATE until = 1 - until",
  );
  return true;
}

function healthRoutes(app: Express, listo: Listo): void {
  app.get('/healthz', (_request, response) => void response.json({ status: 'ok' }));
  app.get('/readyz', async (_request, response) => {
    const isReady = await canWork(listo).catch(() => false);
    response.status(isReady ? 200 : 503).json({ status: isReady ? 'ready' : 'notReady' });
  });
}

/** The router asks them in this order: what is asked most stands first. */
const ROUTES: Routes[] = [
  ticketRoutes,
  clockRoutes,
  sessionRoutes,
  catalogueRoutes,
  serviceRoutes,
  peopleRoutes,
  personCardRoutes,
  leavingRoutes,
  organisationRoutes,
  calendarRoutes,
  teamRoutes,
  targetRoutes,
  effectRoutes,
  wordsRoutes,
  worklistRoutes,
  bulkRoutes,
  knowledgeRoutes,
  assistantRoutes,
  procedureRoutes,
  figureRoutes,
  templateRoutes,
  readyTextRoutes,
  routingRoutes,
  ruleRoutes,
  estateRoutes,
  noticeRoutes,
  workRoutes,
  problemRoutes,
  measureRoutes,
  programRoutes,
  webhookRoutes,
  callRoutes,
  signOnRoutes,
  recordRoutes,
  togetherRoutes,
  spentRoutes,
  surgeRoutes,
  exportRoutes,
  approvalRoutes,
  planRoutes,
  absenceRoutes,
  notificationRoutes,
  mailRoutes,
  chatRoutes,
  complianceRoutes,
  replayRoutes,
];

function createApi(listo: Listo, { store, live, conversations, streams }: Doors): Router {
  const router = Router();
  router.use(
    logSlow(listo),
    keepNothing,
    refuseOtherSites,
    express.json({ limit: BODY_LIMIT }),
    recogniseViewer(listo, streams),
    ...recogniseProgram(listo, streams),
    limitCostly(listo),
  );
  let description: string | null = null;
  router.get('/openapi.json', async (_request, response) => {
    // Made when it is first asked for: it takes as long as a good part of a start, and few ask.
    const { createApiDescription } = await import('./http/openapi');
    description ??= JSON.stringify(createApiDescription());
    response.type('json').send(description);
  });
  router.get('/live', async (request, response) => {
    if (!request.viewer) throw new ProblemError('notSignedIn');
    const lastSeen = Number(request.get('Last-Event-ID') ?? request.query.after);
    await live.join(
      request.viewer,
      response,
      Number.isSafeInteger(lastSeen) && lastSeen >= 0 ? lastSeen : null,
    );
  });
  router.use(listo.traffic.count);
  for (const routes of ROUTES) routes(router, listo);
  conversationRoutes(router, listo, conversations);
  fileRoutes(router, listo, { store, guard: guardFile });
  importRoutes(router, listo, store);
  privacyRoutes(router, listo, store);
  runningRoutes(router, listo, () => live.size);
  router.use(() => {
    throw new ProblemError('notFound');
  });
  return router;
}

/** A service's page may stand within pages of the organisation's; nothing else may. */
function frameAncestorsOf({ config }: Listo, { path: at }: Request): string {
  return at.startsWith('/embed/') && config.LISTO_EMBED_ORIGINS !== ''
    ? config.LISTO_EMBED_ORIGINS
    : "'self'";
}

type Doors = {
  store: FileStore;
  live: Live;
  webDir: string | null;
  mailPort: number;
  chat: ChatRun;
  rooms: RoomsWire;
  conversations: ConversationWire;
  streams: StreamSessions;
};

/** Who is trusted to say where a request came from: nobody, so many proxies, or those of some addresses. */
function trustedProxies(setting: string): number | string[] {
  return /^\d+$/.test(setting) ? Number(setting) : setting.split(',').map((part) => part.trim());
}

/** The built pages: what their names say what is in them is kept by browsers for good; every other address is a page's. */
function servePages(app: Express, webDir: string): void {
  app.use(
    '/assets',
    express.static(path.join(webDir, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }),
  );
  app.use(express.static(webDir, { index: false }));
  app.get('/{*any}', (_request, response) =>
    response.sendFile('index.html', { root: webDir, dotfiles: 'allow' }),
  );
}

/** Puts the application together: health, the API, and the built pages with every other address leading to them. */
export function createApp(listo: Listo, doors: Doors): Express {
  const app = express();
  app.disable('x-powered-by').disable('etag').set('query parser', 'simple');
  app.set('trust proxy', trustedProxies(listo.config.LISTO_TRUST_PROXY));
  app.use(identifyRequests(listo));
  app.use(noSniff());
  app.use(
    whenRead(
      helmet({
        contentSecurityPolicy: {
          directives: {
            styleSrc: ["'self'", "'unsafe-inline'"],
            imgSrc: ["'self'", 'data:', 'blob:'],
            frameAncestors: ["'self'", (request) => frameAncestorsOf(listo, request as Request)],
            upgradeInsecureRequests: null,
          },
        },
        // What may frame a page is said by its policy alone; the older header knows no lists.
        frameguard: false,
        strictTransportSecurity: isOverTls(listo),
      }),
    ),
  );
  app.use(whenRead(exceptStreams(compression())));
  const metrics = createMetrics(listo, () => doors.live.size);
  app.get('/metrics', metrics.answer);
  healthRoutes(app, listo);
  // A process that only works answers nobody but those who look after it.
  if (listo.config.LISTO_ROLES.includes('pages')) servePeople(app.use(metrics.time), listo, doors);
  app.use(() => {
    throw new ProblemError('notFound');
  });
  app.use(createErrorHandler(listo));
  return app;
}

function servePeople(app: Express, listo: Listo, doors: Doors): void {
  const { webDir, mailPort, chat, rooms, streams } = doors;
  app.use('/sign-on', createSignOnPages(listo));
  app.use('/stand-in/provider', createStandInProvider(listo));
  app.use('/stand-in/directory', express.json({ limit: BODY_LIMIT }), createDirectory(listo));
  app.use(
    '/stand-in/mailbox',
    refuseOtherSites,
    express.json({ limit: BODY_LIMIT }),
    recogniseViewer(listo, streams),
    createMailboxRoutes(listo, () => mailPort),
  );
  app.use('/stand-in/rooms/bot', createBotRoutes(listo, rooms));
  app.use(
    '/stand-in/rooms',
    refuseOtherSites,
    express.json({ limit: BODY_LIMIT }),
    recogniseViewer(listo, streams),
    createRoomsRoutes(listo, rooms),
  );
  app.use('/chat/events', createEventRoutes(listo, chat));
  app.use('/api/v1', createApi(listo, doors));
  app.use('/interface', createInterfacePages());
  if (webDir !== null) servePages(app, webDir);
}
