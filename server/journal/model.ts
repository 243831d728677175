import type { Sequelize } from 'sequelize';
import type { JournalEntry } from '../../core/journal';
import { autoNumber, id, instant, integer, json, Table, text } from '../database/table';

/**
 * What happened. `position` is null until the sequencer has seen the entry committed; it is the order in which
 * consumers read, and the only column that is ever written after the entry.
 */
export type JournalRow = JournalEntry & { id: number; position: number | null };

export type ConsumerRow = { name: string; position: number };

export function createJournalTables(sequelize: Sequelize) {
  return {
    journal: new Table<JournalRow>(sequelize, 'journal', {
      id: autoNumber,
      position: integer,
      at: instant,
      actorId: id,
      via: text(20),
      type: text(40),
      ticketNumber: integer,
      work: text(60),
      audience: text(10),
      changes: json,
      data: json,
      byRules: json,
      aboutId: id,
      keyId: id,
    }),
    consumers: new Table<ConsumerRow>(sequelize, 'consumers', { name: text(40), position: integer }, [
      'name',
    ]),
  };
}
