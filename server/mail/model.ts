import type { Sequelize } from 'sequelize';
import type { Language } from '../../core/forms';
import type { MailTemplate, MailTexts } from '../../core/mail';
import { flag, id, instant, integer, json, longText, Table, text } from '../database/table';

/** An address that answers come back to: of one person, on one ticket, or to one ask of theirs. */
export type MailAddressRow = {
  token: string;
  personId: string;
  ticketNumber: number;
  askId: string | null;
  at: number;
};

export type MailOutRow = {
  id: string;
  at: number;
  template: MailTemplate;
  toId: string | null;
  toAddress: string;
  fromName: string;
  fromAddress: string;
  replyTo: string;
  ticketNumber: number | null;
  subject: string;
  text: string;
  language: Language;
  /** Whether it answers a mail by itself: it says so, so that nobody answers it by itself again. */
  isReply: boolean;
  state: 'waiting' | 'sent' | 'failed';
  tries: number;
  nextAt: number;
  sentAt: number | null;
  error: string | null;
};

/** What became of a message that came in. */
export const MAIL_OUTCOMES = [
  'decided',
  'askedBack',
  'alreadyDecided',
  'answered',
  'newTicket',
  'automatic',
  'notTheirs',
  'notProven',
  'unknownSender',
  'unknownAddress',
  'empty',
  'unreadable',
  'tooLarge',
  'refused',
] as const;
export type MailOutcome = (typeof MAIL_OUTCOMES)[number];

export type MailInRow = {
  id: string;
  at: number;
  messageId: string;
  fromAddress: string;
  toAddress: string;
  subject: string;
  size: number;
  outcome: MailOutcome;
  detail: string | null;
  ticketNumber: number | null;
  personId: string | null;
};

export type MailTextRow = { template: MailTemplate; texts: MailTexts; version: number };

/** A mail as the mailbox stand-in keeps it. */
export type StandInMailRow = {
  id: string;
  at: number;
  toAddress: string;
  fromName: string;
  replyTo: string;
  subject: string;
  text: string;
  html: string | null;
  messageId: string;
  refs: string | null;
};

export function createMailTables(sequelize: Sequelize) {
  return {
    mailAddresses: new Table<MailAddressRow>(
      sequelize,
      'mail_addresses',
      { token: text(24), personId: id, ticketNumber: integer, askId: id, at: instant },
      ['token'],
    ),
    mailOut: new Table<MailOutRow>(sequelize, 'mail_out', {
      ...{ id, at: instant, template: text(20), toId: id, toAddress: text(), fromName: text() },
      ...{ fromAddress: text(), replyTo: text(), ticketNumber: integer, subject: text(), text: longText },
      ...{ language: text(2), isReply: flag, state: text(10), tries: integer, nextAt: instant },
      ...{ sentAt: instant, error: text(500) },
    }),
    mailIn: new Table<MailInRow>(sequelize, 'mail_in', {
      ...{ id, at: instant, messageId: text(), fromAddress: text(), toAddress: text(), subject: text(500) },
      ...{ size: integer, outcome: text(30), detail: text(500), ticketNumber: integer, personId: id },
    }),
    mailTexts: new Table<MailTextRow>(
      sequelize,
      'mail_texts',
      { template: text(20), texts: json, version: integer },
      ['template'],
    ),
    standInMails: new Table<StandInMailRow>(sequelize, 'stand_in_mails', {
      ...{ id, at: instant, toAddress: text(), fromName: text(), replyTo: text(), subject: text(500) },
      ...{ text: longText, html: longText, messageId: text(), refs: longText },
    }),
  };
}
