import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { createApp } from './app';
import { BulkRunner } from './bulk/runner';
import { startChat } from './chat/chat';
import { takeQueued } from './chat/queue';
import type { Clock } from './clock';
import type { Config } from './config';
import { INWARD, OUTWARD } from './consumers';
import { migrate } from './database/migrate';
import { FileStore } from './files/store';
import { startForgetting } from './files/unsent';
import { registerConsumers } from './journal/consumer';
import { Pump } from './journal/pump';
import { createListo } from './createListo';
import { readNames } from './people/names';
import { findGuarded } from './tickets/guard';
import { startMailbox } from './standIns/mailbox';
import type { Listo } from './listo';
import { ImportRunner } from './imports/runner';
import { Live } from './live/live';
import { StreamSessions } from './sessions/streams';
import { startMail } from './mail/mail';
import { Recounts } from './recounts/runner';
import { ConversationWire } from './conversations/wire';
import { startWebhooks } from './webhooks/send';
import { RoomsWire } from './standIns/rooms/wire';
import { timers as timersOfAll } from './timerHandlers';
import { startTimers } from './timers/runner';

export type RunningListo = { listo: Listo; port: number; mailPort: number; stop(): Promise<void> };

function listen(server: Server, { HOST, PORT }: Config): Promise<number> {
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(PORT, HOST, () => resolve((server.address() as AddressInfo).port));
  });
}

/** So long what is being answered may take before its connection is cut. */
const LAST_ANSWERS_MS = 10_000;
/** Bounds on what strangers may keep open. */
const MOST_CONNECTIONS = 4_000;
const HEADERS_MS = 15_000;
const REQUEST_MS = 300_000;

/** Takes nothing new, and lets what is being answered be answered. */
async function closeServer(server: Server): Promise<void> {
  const closed = new Promise((resolve) => server.close(resolve));
  server.closeIdleConnections();
  const timer = setTimeout(() => server.closeAllConnections(), LAST_ANSWERS_MS);
  await closed;
  clearTimeout(timer);
}

/** Starts one process of the application: migrated, with its consumers and timers running, listening. */
export async function startListo(
  config: Config,
  webDir: string | null,
  clock?: Clock,
): Promise<RunningListo> {
  const listo = createListo(config, { wake: () => pump.wake(), ...(clock && { clock }) });
  await migrate(listo.db.sequelize);
  const store = new FileStore(config.LISTO_DATA_DIR);
  await store.open();
  await registerConsumers(listo, [...INWARD, ...OUTWARD]);
  const isWorking = config.LISTO_ROLES.includes('work');
  const live = new Live(listo, { outward: OUTWARD.map(({ name }) => name), readNames, findGuarded });
  const recounts = new Recounts(listo);
  const bulk = new BulkRunner(listo);
  const imports = new ImportRunner(listo, store);
  const pump = new Pump(listo, isWorking ? { inward: INWARD, outward: OUTWARD } : null, {
    inwardDone: () => live.tail(),
    async roundDone() {
      if (!isWorking) return;
      await recounts.look();
      bulk.look();
      imports.look();
      if (takeQueued(listo)) chat.wake();
      webhooks.wake();
    },
  });
  const mail = await startMail(listo, store, startMailbox);
  const streams = new StreamSessions(listo);
  const forgetting = startForgetting(listo, store);
  const rooms = new RoomsWire(listo);
  const conversations = new ConversationWire(listo);
  const chat = startChat(listo, store);
  const webhooks = startWebhooks(listo);
  const server = createServer(
    createApp(listo, { store, live, webDir, mailPort: mail.port, chat, rooms, conversations, streams }),
  );
  Object.assign(server, {
    headersTimeout: HEADERS_MS,
    requestTimeout: REQUEST_MS,
    maxConnections: MOST_CONNECTIONS,
  });
  const port = await listen(server, config);
  if (config.LISTO_ADDRESS === undefined) listo.address = `http://${config.HOST}:${port}`;
  pump.start();
  const timers = isWorking ? startTimers(listo, timersOfAll) : null;
  return {
    listo,
    port,
    mailPort: mail.port,
    async stop() {
      live.stop();
      streams.stop();
      forgetting.stop();
      rooms.end();
      conversations.end();
      await closeServer(server);
      await recounts.stop();
      await bulk.stop();
      await imports.stop();
      await timers?.stop();
      await rooms.stop();
      await conversations.stop();
      await chat.stop();
      await webhooks.stop();
      await mail.stop();
      await pump.stop();
      await listo.db.close();
    },
  };
}
