import type { Listo } from '../listo';
import type { UnitOfWork } from '../unitOfWork';

/** What signing in and setting up ask of the floors above. */
export type SessionPorts = {
  /** Whether the assistant answers here. */
  hasAssistant(listo: Listo): Promise<boolean>;
  /** Where people may sign in instead of here, and for which mail domains. */
  providers(listo: Listo): Promise<{ id: string; name: string; domains: string[] }[]>;
  /** A session has ended. @returns where its browser goes on to, so that it ends elsewhere too; null: nowhere */
  ended(listo: Listo, sessionId: string): Promise<string | null>;
  /** An organisation begins with this team: what else it begins with is made in the same transaction. */
  begun(work: UnitOfWork, teamId: string): Promise<void>;
};
