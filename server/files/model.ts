import type { Sequelize } from 'sequelize';
import { id, instant, integer, Table, text } from '../database/table';

/** `ticketNumber` is null until the file is sent; `messageId` where it was sent with words. */
export type FileRow = {
  id: string;
  personId: string;
  ticketNumber: number | null;
  messageId: string | null;
  /** Where it was sent in a conversation. */
  conversationId: string | null;
  /** The article in which it stands. */
  articleId: string | null;
  name: string;
  type: string;
  size: number;
  at: number;
};

export function createFileTables(sequelize: Sequelize) {
  return {
    files: new Table<FileRow>(sequelize, 'files', {
      id,
      personId: id,
      ticketNumber: integer,
      messageId: id,
      conversationId: id,
      articleId: id,
      name: text(),
      type: text(100),
      size: integer,
      at: instant,
    }),
  };
}
