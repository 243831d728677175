import type { UnitOfWork } from '../unitOfWork';
import type { TeamRow } from '../people/model';

/** What the floors above do when teams change, in the same transaction. */
export type TeamPorts = {
  /** A team has been made. @returns the targets that it begins with */
  made(work: UnitOfWork, team: Pick<TeamRow, 'id' | 'calendarId' | 'name'>): Promise<string[]>;
  /** A team is otherwise than before, by someone. */
  changed(work: UnitOfWork, change: TeamChange): Promise<void>;
};
export type TeamChange = { team: TeamRow; before: TeamRow; personId: string };
