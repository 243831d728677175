import type { Sequelize } from 'sequelize';
import type { Audience } from '../../core/catalogue';
import type { LocalText } from '../../core/forms';
import type { NoticeTimes } from '../../core/notices';
import { flag, id, instant, integer, json, longText, Table, text } from '../database/table';

/** A published word of an outage or of planned work. */
export type NoticeRow = NoticeTimes & {
  id: string;
  title: LocalText;
  words: LocalText;
  /** What only those at the Desk read. */
  forAgents: string;
  /** Whom it concerns. */
  audience: Audience;
  serviceIds: string[];
  thingIds: string[];
  teamId: string;
  isPublic: boolean;
  isMajor: boolean;
  /** Who leads what is done about it. */
  leadId: string | null;
  /** What it was made from. */
  ofTicket: number | null;
  ofWork: number | null;
  createdById: string;
  createdAt: number;
  review: string;
  version: number;
};

/** Words of a notice that everyone tied to it is told once. */
export type NoticeUpdateRow = {
  id: string;
  noticeId: string;
  at: number;
  byId: string;
  kind: 'opened' | 'update' | 'ended';
  words: LocalText;
  /** Those with a ticket hear of it by that, which is done with it. */
  isForFollowers: boolean;
  journalId: number;
};

export function createNoticeTables(sequelize: Sequelize) {
  return {
    notices: new Table<NoticeRow>(sequelize, 'notices', {
      ...{
        id,
        kind: text(10),
        title: json,
        words: json,
        forAgents: longText,
        audience: json,
        serviceIds: json,
      },
      ...{
        thingIds: json,
        teamId: id,
        fromAt: instant,
        untilAt: instant,
        endedAt: instant,
        calledBackAt: instant,
      },
      ...{ isPublic: flag, isMajor: flag, leadId: id, ofTicket: integer, ofWork: integer, createdById: id },
      ...{ createdAt: instant, review: longText, version: integer },
    }),
    noticeUpdates: new Table<NoticeUpdateRow>(sequelize, 'notice_updates', {
      ...{
        id,
        noticeId: id,
        at: instant,
        byId: id,
        kind: text(10),
        words: json,
        isForFollowers: flag,
        journalId: integer,
      },
    }),
    noticeTickets: new Table<{ noticeId: string; ticketNumber: number; at: number; byId: string | null }>(
      sequelize,
      'notice_tickets',
      { noticeId: id, ticketNumber: integer, at: instant, byId: id },
      ['noticeId', 'ticketNumber'],
    ),
    noticeFollowers: new Table<{ noticeId: string; personId: string; at: number }>(
      sequelize,
      'notice_followers',
      { noticeId: id, personId: id, at: instant },
      ['noticeId', 'personId'],
    ),
    noticeTold: new Table<{ updateId: string; personId: string }>(
      sequelize,
      'notice_told',
      { updateId: id, personId: id },
      ['updateId', 'personId'],
    ),
  };
}
