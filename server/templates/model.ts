import type { Sequelize } from 'sequelize';
import type { Answers } from '../../core/forms';
import { flag, id, json, Table, text } from '../database/table';

/** A ticket prepared for what comes again and again. */
export type TemplateRow = {
  id: string;
  teamId: string;
  name: string;
  serviceId: string;
  title: string;
  answers: Answers;
  /** Whether those who ask for the service may begin from it too. */
  isOffered: boolean;
};

export function createTemplateTables(sequelize: Sequelize) {
  return {
    templates: new Table<TemplateRow>(sequelize, 'ticket_templates', {
      ...{ id, teamId: id, name: text(120), serviceId: id, title: text(200), answers: json, isOffered: flag },
    }),
  };
}
