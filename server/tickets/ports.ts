import type { Ticket } from '../../contract/tickets';
import type { TicketAction } from '../../core/rights';
import type { MoveName } from '../../core/tickets';
import type { Definition, ServiceRow } from '../catalogue/model';
import type { UnitOfWork, Viewing } from '../unitOfWork';
import type { TicketRecord } from './model';

/** What conditions on a request are judged by, before it has a number. */
export type Judged = Pick<
  TicketRecord,
  'kind' | 'serviceId' | 'teamId' | 'requesterId' | 'place' | 'answers' | 'priority' | 'impact' | 'urgency'
>;

/** What the floors above do in the life of a ticket, each in the transaction of what happened. */
export type TicketPorts = {
  /** Whether someone has to agree to a request before it is worked on. */
  isAgreedFirst(service: Definition, judged: Judged): boolean;
  /** Made: what has to be agreed is asked, its plan begins. @throws ProblemError where nobody can agree */
  opened(work: UnitOfWork, ticket: TicketRecord, service: ServiceRow): Promise<void>;
  /** Filed under another service: what both forms ask for stays answered. */
  refiled(work: UnitOfWork, ticket: TicketRecord, service: Definition): Promise<void>;
  moved(work: UnitOfWork, ticket: TicketRecord, move: MoveName): Promise<void>;
  /** The requester's side has written. */
  answered(work: UnitOfWork, ticket: TicketRecord): Promise<void>;
  /** What was asked for is otherwise than it was. @throws ProblemError where nobody can agree */
  answersChanged(work: UnitOfWork, ticket: TicketRecord, service: Definition): Promise<void>;
  /** What its page shows of approvals, plan, clocks and the chat. */
  read(
    viewing: Viewing,
    ticket: TicketRecord,
    rights: TicketAction[],
  ): Promise<Pick<Ticket, 'approvals' | 'plan' | 'clocks' | 'room' | 'conversation'>>;
};
