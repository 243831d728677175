import type { Sequelize } from 'sequelize';
import type { CalendarSpec } from '../../core/calendar';
import type { OutOfHours } from '../../core/hours';
import type { Language, LocalText } from '../../core/forms';
import type { TeamRole } from '../../core/rights';
import type { ProgressLabel } from '../../core/tickets';
import type { RoutingSettings } from '../../core/routing';
import type { OrderWeights } from '../../core/worklist';
import { flag, id, instant, integer, json, Table, text } from '../database/table';

export type PersonRow = {
  id: string;
  name: string;
  email: string;
  phone: string;
  title: string;
  department: string;
  siteId: string;
  /** Where inside the site: a gate, a deck, a room. */
  place: string | null;
  vessel: string | null;
  device: string | null;
  costCentre: string;
  managerId: string | null;
  language: Language;
  isAdministrator: boolean;
  mayAskForOthers: boolean;
  goesFirst: boolean;
  passwordHash: string | null;
  wantsMail: boolean;
  /** Whether they take tickets, as they say themselves. */
  presence: 'available' | 'busy' | 'away';
  leftAt: number | null;
  /** When what was known of them was erased. */
  erasedAt?: number | null;
  version: number;
};

export type SiteRow = {
  id: string;
  name: string;
  timeZone: string;
  calendarId: string;
  headId: string | null;
};
export type CalendarRow = { id: string; spec: CalendarSpec; version: number };
export type TeamRow = {
  id: string;
  name: LocalText;
  isConfidential: boolean;
  calendarId: string;
  outOfHours: OutOfHours;
  /** The local part of the address under which mail reaches it, and the service that such mail asks for. */
  mailbox: string | null;
  mailServiceId: string | null;
  /** Whether its approvers may decide in chat. */
  decidesInChat: boolean;
  /** Whether the assistant answers what is written to its address. */
  answersMail: boolean;
  /** Teams whose agents may take its tickets and give them on: a first line, for one; null: every team. */
  givenOnBy: string[] | null;
  /** Teams whose agents may read its tickets; null: every team. Absent where it was not said: null. */
  readBy?: string[] | null;
  progressLabels: ProgressLabel[];
  /** What may stand before what falls due sooner; null: as everywhere. */
  orderWeights: OrderWeights | null;
  /** How its tickets find a person; null: by hand. */
  routing: RoutingSettings | null;
  version: number;
};
export type GroupRow = { id: string; teamId: string; name: string };
export type MemberRow = {
  teamId: string;
  personId: string;
  role: TeamRole;
  groupId: string | null;
  /** How many units of work they can have at once; null: no limit is set. */
  capacity: number | null;
  /** When they were last given something by the team's way. */
  lastGivenAt: number | null;
};
export type SettingRow = { name: string; value: unknown };

export function createPeopleTables(sequelize: Sequelize) {
  return {
    people: new Table<PersonRow>(sequelize, 'people', {
      id,
      name: text(),
      email: text(),
      phone: text(),
      title: text(),
      department: text(),
      siteId: id,
      place: text(),
      vessel: text(),
      device: text(),
      costCentre: text(),
      managerId: id,
      language: text(2),
      isAdministrator: flag,
      mayAskForOthers: flag,
      goesFirst: flag,
      passwordHash: text(),
      wantsMail: flag,
      presence: text(10),
      leftAt: instant,
      erasedAt: instant,
      version: integer,
    }),
    sites: new Table<SiteRow>(sequelize, 'sites', {
      id,
      name: text(),
      timeZone: text(60),
      calendarId: id,
      headId: id,
    }),
    calendars: new Table<CalendarRow>(sequelize, 'calendars', { id, spec: json, version: integer }),
    teams: new Table<TeamRow>(sequelize, 'teams', {
      id,
      name: json,
      isConfidential: flag,
      calendarId: id,
      outOfHours: json,
      mailbox: text(60),
      mailServiceId: id,
      decidesInChat: flag,
      answersMail: flag,
      givenOnBy: json,
      readBy: json,
      progressLabels: json,
      orderWeights: json,
      routing: json,
      version: integer,
    }),
    groups: new Table<GroupRow>(sequelize, 'team_groups', { id, teamId: id, name: text() }),
    members: new Table<MemberRow>(
      sequelize,
      'team_members',
      { teamId: id, personId: id, role: text(20), groupId: id, capacity: integer, lastGivenAt: instant },
      ['teamId', 'personId'],
    ),
    settings: new Table<SettingRow>(sequelize, 'settings', { name: text(60), value: json }, ['name']),
  };
}
