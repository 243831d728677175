import type { Sequelize } from 'sequelize';
import type { LocalText } from '../../core/forms';
import { id, integer, json, Table, text } from '../database/table';

/** A prepared piece of text with blanks. `teamId` null: its owner's alone. */
export type ReadyTextRow = {
  id: string;
  teamId: string | null;
  ownerId: string;
  name: string;
  /** In each language; where one is empty, the other stands in. */
  text: LocalText;
  version: number;
};

export function createReadyTextTables(sequelize: Sequelize) {
  return {
    readyTexts: new Table<ReadyTextRow>(sequelize, 'ready_texts', {
      id,
      teamId: id,
      ownerId: id,
      name: text(120),
      text: json,
      version: integer,
    }),
  };
}
