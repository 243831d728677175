import type { Sequelize } from 'sequelize';
import type { Place } from '../../contract/names';
import type { ApproverRef, Needs } from '../../core/approvals';
import type { FormDefinition, LocalText } from '../../core/forms';
import type { ServicePlan } from '../../core/plans';
import type { Impact, Urgency } from '../../core/tickets';
import { flag, id, integer, json, Table, text } from '../database/table';

export type ApprovalStep = {
  name: LocalText;
  refs: ApproverRef[];
  needs: Needs;
  declineBy: 'any' | 'outOfReach';
};

export type ServiceRow = {
  id: string;
  kind: 'incident' | 'request';
  place: Place;
  title: LocalText;
  description: LocalText;
  otherWords: LocalText;
  teamId: string;
  groupId: string | null;
  form: FormDefinition;
  approval: ApprovalStep | null;
  /** What has to happen, where that is more than one thing for one team. */
  plan: ServicePlan | null;
  fallbackApproverId: string | null;
  /** Euro cents. */
  cost: number | null;
  impact: Impact;
  urgency: Urgency;
  isOn: boolean;
  version: number;
};

export function createCatalogueTables(sequelize: Sequelize) {
  return {
    services: new Table<ServiceRow>(sequelize, 'services', {
      id,
      kind: text(10),
      place: text(20),
      title: json,
      description: json,
      otherWords: json,
      teamId: id,
      groupId: id,
      form: json,
      approval: json,
      plan: json,
      fallbackApproverId: id,
      cost: integer,
      impact: text(20),
      urgency: text(20),
      isOn: flag,
      version: integer,
    }),
  };
}
