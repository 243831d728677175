import type { Transaction } from 'sequelize';
import type { Listo } from '../listo';
import type { TeamRow } from '../people/model';

/** What the floors above do when teams change, in the same transaction. */
export type TeamPorts = {
  /** A team has been made. @returns the targets that it begins with */
  made(listo: Listo, tx: Transaction, team: Pick<TeamRow, 'id' | 'calendarId' | 'name'>): Promise<string[]>;
  /** A team is otherwise than before, by someone. */
  changed(listo: Listo, tx: Transaction, change: TeamChange): Promise<void>;
};
export type TeamChange = { team: TeamRow; before: TeamRow; personId: string };
