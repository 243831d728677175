import type { BulkPorts } from './bulk/ports';
import type { CalendarPorts } from './calendars/ports';
import type { CataloguePorts } from './catalogue/ports';
import type { MailPorts } from './mail/ports';
import type { PlanPorts } from './plans/ports';
import type { SessionPorts } from './sessions/ports';
import type { TeamPorts } from './teams/ports';
import type { TicketPorts } from './tickets/ports';

/** Where lower floors let upper ones take part: each floor says what it asks, `composePorts` who answers. */
export type Ports = {
  bulk: BulkPorts;
  calendars: CalendarPorts;
  catalogue: CataloguePorts;
  mail: MailPorts;
  plans: PlanPorts;
  sessions: SessionPorts;
  teams: TeamPorts;
  tickets: TicketPorts;
};
