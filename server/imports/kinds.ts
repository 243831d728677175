import type { ImportKind, ImportProblem, Reading } from '../../contract/imports';
import { mayKeepPeople, isAgent } from '../../core/rights';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { openPeople } from './people';
import type { ImportRow } from './model';
import type { TableRow } from './table';
import { openThings } from './things';
import { openTickets } from './tickets';

/** A table that is being read, as what its rows are. */
export type Opened = {
  /** What is wrong with a row; nothing: it would do. */
  look(cells: string[]): Omit<ImportProblem, 'line'>[];
  /** Writes a row that would do, once however often it is begun. @throws ProblemError */
  write(job: ImportRow, viewer: SignedIn, row: TableRow): Promise<void>;
  /** What of a row is told where it was refused after all. */
  nameOf(cells: string[]): string;
  /** What is written once all rows are. @returns what was refused of it */
  finish?(job: ImportRow, viewer: SignedIn): Promise<ImportProblem[]>;
};

/** The rows of a table, from its first, headings left out. */
export type Rows = () => AsyncIterable<TableRow>;

const OPEN: Record<ImportKind, (listo: Listo, reading: Reading, rows: Rows) => Promise<Opened>> = {
  tickets: openTickets,
  people: openPeople,
  things: openThings,
};

/** Makes ready to read a table by what its columns are. */
export const openTable = (
  listo: Listo,
  { kind, reading }: { kind: ImportKind; reading: Reading },
  rows: Rows,
): Promise<Opened> => OPEN[kind](listo, reading, rows);

/** Whether someone may bring in tables of a kind. Of things, each row is judged by its own kind. */
const MAY: Record<ImportKind, (viewer: SignedIn) => boolean> = {
  tickets: isAgent,
  people: mayKeepPeople,
  things: (viewer) => isAgent(viewer) || viewer.isAdministrator,
};
export const mayBringIn = (kind: ImportKind, viewer: SignedIn): boolean => MAY[kind](viewer);
