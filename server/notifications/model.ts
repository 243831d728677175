import type { Sequelize } from 'sequelize';
import type { LocalText } from '../../core/forms';
import type { Reader, ToldEvent } from '../../core/telling';
import type { JournalRow } from '../journal/model';
import { autoNumber, id, instant, integer, json, Table, text } from '../database/table';

export type NotificationRow = {
  id: number;
  personId: string;
  /** What it is about: a ticket, or a notice that they follow without one. */
  ticketNumber: number | null;
  noticeId: string | null;
  journalId: number;
  event: ToldEvent;
  relation: Reader;
  at: number;
  /** What the target says, where it says something of its own. */
  words: LocalText | null;
  readAt: number | null;
};

/** Someone who is told of an entry, and why. */
export type Told = Pick<NotificationRow, 'personId' | 'event' | 'relation'> & { entry: JournalRow };

export function createNotificationTables(sequelize: Sequelize) {
  return {
    notifications: new Table<NotificationRow>(sequelize, 'notifications', {
      id: autoNumber,
      personId: id,
      ticketNumber: integer,
      noticeId: id,
      journalId: integer,
      event: text(20),
      relation: text(20),
      at: instant,
      words: json,
      readAt: instant,
    }),
  };
}
