import { pino } from 'pino';
import { createClock } from './clock';
import type { Config } from './config';
import { openDatabase } from './openDatabase';
import { createTraffic } from './http/traffic';
import type { Listo } from './listo';
import { PORTS } from './composePorts';
import { createCalendarStore } from './people/calendarStore';

/** What signs people in never reaches a log. */
const SECRETS = ['req.headers.cookie', 'req.headers.authorization', 'res.headers["set-cookie"]'];

/** The application without its doors: for work on the data alone. */
export function createListo(
  config: Config,
  {
    wake = () => undefined,
    clock = createClock(config.LISTO_CLOCK_STARTS_AT),
  }: Partial<Pick<Listo, 'wake' | 'clock'>> = {},
): Listo {
  const db = openDatabase(config.DATABASE_URL);
  const log = pino({ level: config.LOG_LEVEL, base: { pid: process.pid }, redact: SECRETS });
  return {
    config,
    db,
    log,
    clock,
    calendars: createCalendarStore(db),
    address: config.LISTO_ADDRESS ?? `http://${config.HOST}:${config.PORT}`,
    traffic: createTraffic(),
    ports: PORTS,
    wake,
  };
}
