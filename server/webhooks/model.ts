import type { Sequelize } from 'sequelize';
import type { Condition } from '../../core/conditions';
import { autoNumber, flag, id, instant, integer, json, longText, Table, text } from '../database/table';

/** An address that is told what happens, for a program. */
export type WebhookRow = {
  id: string;
  programId: string;
  name: string;
  address: string;
  /** The secret that its messages are signed with, sealed. */
  sealedSecret: string;
  /** None: all that there are. */
  kinds: string[];
  provided: Condition;
  isOn: boolean;
  /** When a trial of the address as it stands was taken; null: none was. */
  triedAt: number | null;
  /** While it does not answer nothing is sent to it until then. */
  pausedUntil: number | null;
  createdAt: number;
  version: number;
};
export type DeliveryState = 'waiting' | 'delivered' | 'undelivered';
/** One event on its way to one webhook. `entryId`: the entry of the journal that it tells of; 0: a trial. */
export type DeliveryRow = {
  id: number;
  /** The message's id, by which its receiver knows a repeat. */
  messageId: string;
  webhookId: string;
  entryId: number;
  ticketNumber: number;
  type: string;
  body: string;
  state: DeliveryState;
  tries: number;
  at: number;
  nextAt: number;
  lastAt: number | null;
  status: number | null;
  /** How its receiver's answer begins, or why there was none. */
  answer: string | null;
};

export function createWebhookTables(sequelize: Sequelize) {
  return {
    webhooks: new Table<WebhookRow>(sequelize, 'webhooks', {
      ...{ id, programId: id, name: text(100), address: text(500), sealedSecret: text(500), kinds: json },
      ...{
        provided: json,
        isOn: flag,
        triedAt: instant,
        pausedUntil: instant,
        createdAt: instant,
        version: integer,
      },
    }),
    deliveries: new Table<DeliveryRow>(sequelize, 'webhook_deliveries', {
      ...{
        id: autoNumber,
        messageId: id,
        webhookId: id,
        entryId: integer,
        ticketNumber: integer,
        type: text(60),
      },
      ...{ body: longText, state: text(20), tries: integer, at: instant, nextAt: instant, lastAt: instant },
      ...{ status: integer, answer: text(500) },
    }),
  };
}
