import type { Listo } from '../listo';
import type { UnitOfWork } from '../unitOfWork';

/** What signing in and setting up ask of the floors above. */
export type SessionPorts = {
  /** Whether the assistant answers here. */
  hasAssistant(listo: Listo): Promise<boolean>;
  /** An organisation begins with this team: what else it begins with is made in the same transaction. */
  begun(work: UnitOfWork, teamId: string): Promise<void>;
};
