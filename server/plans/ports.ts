import type { ServiceStep } from '../../core/plans';
import type { Definition } from '../catalogue/model';
import type { UnitOfWork } from '../unitOfWork';
import type { TicketRecord } from '../tickets/model';

/** A step of a plan at which someone has to agree. */
export type StepToAgree = {
  ticket: TicketRecord;
  service: Definition;
  stepId: string;
  definition: Extract<ServiceStep, { kind: 'approval' }>;
};

/** What plans ask of approvals. */
export type PlanPorts = {
  /** Asks those who decide. @returns whether there is anybody who can */
  ask(work: UnitOfWork, step: StepToAgree): Promise<boolean>;
};
