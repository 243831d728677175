import type { Transaction } from 'sequelize';

/** In the chain of which rules the entries of a transaction are written just now. */
const chains = new WeakMap<Transaction, string[]>();

/** The rules in whose chain an entry of this transaction is written; null: no rule does it. */
export const chainOf = (tx: Transaction): string[] | null => chains.get(tx) ?? null;

/** Lets all that is appended meanwhile be written in the chain of these rules, the oldest first. */
export async function inChain<T>(tx: Transaction, byRules: string[], act: () => Promise<T>): Promise<T> {
  chains.set(tx, byRules);
  try {
    return await act();
  } finally {
    chains.delete(tx);
  }
}

/** The key by which a program does what a transaction does. */
const keys = new WeakMap<Transaction, string>();

/** Lets all that is appended in a transaction be written as done by a program with its key. */
export const markByKey = (tx: Transaction, keyId: string): void => void keys.set(tx, keyId);

/** The key by which an entry of this transaction is written; null: no program does it. */
export const keyOf = (tx: Transaction): string | null => keys.get(tx) ?? null;
