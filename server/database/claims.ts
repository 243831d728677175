import { createHash } from 'node:crypto';
import type { Sequelize, Transaction } from 'sequelize';
import { nodesOf } from './nodes';
import { send } from './transaction';

/**
 * So many rows stand for everything that can be locked: the table never grows, and two that have nothing to do with each
 * other seldom share one (then one of them waits, or is done again).
 */
const SLOTS = 65_536;

function slotOf(name: string): number {
  return createHash('sha1').update(name).digest().readUInt32BE(0) % SLOTS;
}

/**
 * A lock of one node of a cluster is not heeded by the others. There, what locks something also writes that it did, in
 * a row that stands for it: of two transactions that wrote the same row on two nodes, only the first is committed, and
 * the other is done again. On a single server this does nothing.
 * @param names what is locked, as the table and its key
 */
export async function claim(sequelize: Sequelize, names: string[], tx: Transaction): Promise<void> {
  if (names.length === 0 || !nodesOf(sequelize).isCluster) return;
  // In one order everywhere, so that those who claim several do not wait for each other in a ring.
  const slots = [...new Set(names.map(slotOf))].sort((a, b) => a - b);
  const rows = slots.map((slot) => `(${slot}, 1)`).join();
  await send(tx, `INSERT INTO claims (slot, times) VALUES ${rows} ON DUPLICATE KEY UPDATE times = times + 1`);
}
