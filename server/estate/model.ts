import type { Sequelize } from 'sequelize';
import type { SeenBy, ThingClaim, Tie } from '../../contract/estateNames';
import type { ThingFacts, ThingState } from '../../core/estate';
import type { Answers, FormDefinition, LocalText } from '../../core/forms';
import { flag, id, instant, integer, json, Table, text } from '../database/table';
import { DataTypes } from 'sequelize';

/** A kind of things, with the fields of its own. */
export type ThingKindRow = {
  id: string;
  name: LocalText;
  form: FormDefinition;
  seenBy: SeenBy;
  /** The teams that keep its things; none: every team. */
  keptBy: string[];
  /** Whether things of it are given to people, and come back. */
  isHandedOut: boolean;
  /** The service under which such a thing is reported. */
  serviceId: string | null;
  /** Over how many months its cost goes down to nothing. */
  months: number | null;
  position: number;
  version: number;
};

/** A thing that is kept track of: a device, a vessel, a line, a service that people know by name. */
export type ThingRow = ThingFacts & {
  id: string;
  kindId: string;
  /** Tag and serial number as they are compared; null: it has none. */
  tagMark: string | null;
  serialMark: string | null;
  state: ThingState;
  /** Who answers for it. */
  ownerId: string | null;
  /** Who has it. */
  holderId: string | null;
  siteId: string | null;
  department: string | null;
  lentUntil: number | null;
  /** The team that looks after it. */
  teamId: string | null;
  isWatched: boolean;
  /** What its kind asks for. */
  fields: Answers;
  /** Since when its holder has it, and when they said so. */
  handedAt: number | null;
  confirmedAt: number | null;
  /** What its holder says of it that nobody has dealt with, and since when. */
  claim: ThingClaim | null;
  claimAt: number | null;
  seenAt: number | null;
  version: number;
};

/** What a thing needs. What is no longer so stays, gone, so that those who remember it hear of that. */
export type ThingNeedRow = {
  id: string;
  thingId: string;
  atLeast: number;
  members: string[];
  isGone: boolean;
};

/** A thing on a ticket. */
export type TicketThingRow = {
  ticketNumber: number;
  thingId: string;
  how: Tie;
  /** Whether it was chosen in the form. */
  isAnswer: boolean;
  at: number;
};

export function createEstateTables(sequelize: Sequelize) {
  return {
    thingKinds: new Table<ThingKindRow>(sequelize, 'thing_kinds', {
      ...{
        id,
        name: json,
        form: json,
        seenBy: text(10),
        keptBy: json,
        isHandedOut: flag,
        serviceId: id,
        months: integer,
      },
      ...{ position: integer, version: integer },
    }),
    things: new Table<ThingRow>(sequelize, 'things', {
      ...{ id, kindId: id, name: text(), tag: text(60), tagMark: text(60), serial: text(80) },
      ...{ serialMark: text(80), model: text(120), state: text(10), ownerId: id, holderId: id, siteId: id },
      ...{ department: text(), lentUntil: instant, place: text(120), vessel: text(60), teamId: id },
      ...{ cost: integer, boughtOn: text(10), warrantyUntil: text(10), contract: text(200), isWatched: flag },
      ...{ dependable: DataTypes.DOUBLE, fields: json, handedAt: instant, confirmedAt: instant },
      ...{ claim: text(10), claimAt: instant, seenAt: instant, version: integer },
    }),
    thingNeeds: new Table<ThingNeedRow>(sequelize, 'thing_needs', {
      ...{ id, thingId: id, atLeast: integer, members: json, isGone: flag },
    }),
    ticketThings: new Table<TicketThingRow>(
      sequelize,
      'ticket_things',
      { ticketNumber: integer, thingId: id, how: text(10), isAnswer: flag, at: instant },
      ['ticketNumber', 'thingId'],
    ),
  };
}
