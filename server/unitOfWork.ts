import type { Transaction } from 'sequelize';
import type { Actor } from './http/change';
import type { Listo } from './listo';
import type { SignedIn } from './sessions/viewer';

/** A unit of work: the running application, and the one transaction in which everything is read and changed. */
export interface UnitOfWork {
  listo: Listo;
  tx: Transaction;
}

/** Who reads, and where. */
export interface Viewing {
  listo: Listo;
  viewer: SignedIn;
}

/** Who changes something, and under which idempotency key: opened by the door of a route. */
export interface Changing extends Viewing {
  actor: Actor;
}

/** A unit of work that is done for somebody, by whose rights it is judged. */
export interface WorkOfViewer extends UnitOfWork, Viewing {}

/** Where something is read: within a unit of work, or by itself. */
export interface Reading {
  listo: Listo;
  tx?: Transaction | undefined;
}
