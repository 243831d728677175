import type { Sequelize } from 'sequelize';
import type { Place } from '../../contract/names';
import type { ServiceDefinition } from '../../core/catalogue';
import type { LocalText } from '../../core/forms';
import { flag, id, instant, integer, json, Table, text } from '../database/table';

/** A service as it is written by those who answer for it. */
export type Definition = ServiceDefinition<Place>;

/** A service as it is published. */
export type ServiceRow = Definition & {
  id: string;
  isOn: boolean;
  /** What is said to those who come while it is off. */
  offWords: LocalText | null;
  /** Its place among those of its index. */
  position: number;
  /** How often it has been published. */
  version: number;
  publishedAt: number | null;
};

/** What is being written; of a new service, all that there is of it. */
export type DraftRow = {
  id: string;
  definition: Definition;
  version: number;
  changedAt: number;
  changedById: string | null;
};

/** A version that has been replaced: requests that were sent under it keep it. */
export type FormerVersionRow = {
  serviceId: string;
  version: number;
  definition: Definition;
  publishedAt: number | null;
  replacedAt: number;
  replacedById: string | null;
};

export type CategoryRow = { id: string; parentId: string | null; name: LocalText; position: number };

const DEFINITION_COLUMNS = {
  kind: text(10),
  place: text(20),
  categoryId: id,
  icon: id,
  title: json,
  description: json,
  otherWords: json,
  teamId: id,
  groupId: id,
  ownerId: id,
  audience: json,
  form: json,
  approvals: json,
  plan: json,
  fallbackApproverId: id,
  cost: integer,
  impact: text(20),
  urgency: text(20),
  stateWords: json,
  articleLabels: json,
  opening: json,
  thanks: json,
} satisfies Record<keyof Definition, unknown>;

/** A definition as it was kept: one that was written before services had an owner, an opening or thanks has none. */
export const complete = (definition: Definition): Definition => ({
  ...definition,
  ownerId: definition.ownerId ?? null,
  opening: definition.opening ?? null,
  thanks: definition.thanks ?? null,
});

/** The part of a service that is written in a draft. */
export function toDefinition(row: ServiceRow): Definition {
  return Object.fromEntries(
    Object.keys(DEFINITION_COLUMNS).map((column) => [column, row[column as keyof Definition]]),
  ) as Definition;
}

export function createCatalogueTables(sequelize: Sequelize) {
  return {
    services: new Table<ServiceRow>(sequelize, 'services', {
      id,
      ...DEFINITION_COLUMNS,
      isOn: flag,
      offWords: json,
      position: integer,
      version: integer,
      publishedAt: instant,
    }),
    drafts: new Table<DraftRow>(sequelize, 'service_drafts', {
      ...{ id, definition: json, version: integer, changedAt: instant, changedById: id },
    }),
    formerVersions: new Table<FormerVersionRow>(
      sequelize,
      'service_versions',
      {
        ...{ serviceId: id, version: integer, definition: json, publishedAt: instant },
        ...{ replacedAt: instant, replacedById: id },
      },
      ['serviceId', 'version'],
    ),
    categories: new Table<CategoryRow>(sequelize, 'categories', {
      ...{ id, parentId: id, name: json, position: integer },
    }),
  };
}
