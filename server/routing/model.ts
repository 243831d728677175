import type { Sequelize } from 'sequelize';
import { id, integer, Table, text } from '../database/table';

/** Something that someone can, from 1 (learning) to 3 (teaches it). */
export type SkillRow = { personId: string; skill: string; level: number };

export function createRoutingTables(sequelize: Sequelize) {
  return {
    skills: new Table<SkillRow>(
      sequelize,
      'person_skills',
      { personId: id, skill: text(60), level: integer },
      ['personId', 'skill'],
    ),
  };
}
