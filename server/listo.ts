import type { Logger } from 'pino';
import type { Clock } from './clock';
import type { Config } from './config';
import type { Database } from './database/database';
import type { Traffic } from './http/traffic';
import type { CalendarStore } from './people/calendarStore';
import type { Ports } from './ports';

/** What every service is given: the outside of one running application. */
export interface Listo {
  config: Config;
  db: Database;
  clock: Clock;
  log: Logger;
  calendars: CalendarStore;
  /** Where this process is reached, for addresses that answer to it. */
  address: string;
  /** What people ask this process for, before which other work gives way. */
  traffic: Traffic;
  /** How services ask the floors above them. */
  ports: Ports;
  /** Says that something was committed that consumers should look at. */
  wake(): void;
}
