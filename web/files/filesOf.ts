import type { FileRef } from '../../contract/files';
import type { Ticket } from '../../contract/tickets';

/** Every file of a ticket, those of its request first. */
export const filesOf = ({ files, entries }: Pick<Ticket, 'files' | 'entries'>): FileRef[] => [
  ...files,
  ...entries.flatMap(({ message }) => message?.files ?? []),
];
