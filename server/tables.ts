import type { Sequelize } from 'sequelize';
import { createAbsenceTables } from './absences/model';
import { createApprovalTables } from './approvals/model';
import { createAssistantTables } from './assistant/model';
import { createBulkTables } from './bulk/model';
import { createChatTables } from './chat/model';
import { createCatalogueTables } from './catalogue/model';
import { createAuditTables } from './audit/model';
import { createCallTables } from './calls/model';
import { createWebhookTables } from './webhooks/model';
import { createClockTables } from './clocks/model';
import { createReplayTables } from './replays/model';
import { createConversationTables } from './conversations/model';
import { createFileTables } from './files/model';
import { createJournalTables } from './journal/model';
import { createKnowledgeTables } from './knowledge/model';
import { createMailTables } from './mail/model';
import { createMeasureTables } from './measures/model';
import { createNoticeTables } from './notices/model';
import { createProblemTables } from './problems/model';
import { createPrivacyTables } from './privacy/model';
import { createSignOnTables } from './signOn/model';
import { createProgramTables } from './programs/model';
import { createWorkTables } from './works/model';
import { createNotificationTables } from './notifications/model';
import { createOrganisationTables } from './organisation/model';
import { createPeopleTables } from './people/model';
import { createPlanTables } from './plans/model';
import { createProcedureTables } from './procedures/model';
import { createImportTables } from './imports/model';
import { createTemplateTables } from './templates/model';
import { createReadyTextTables } from './readyTexts/model';
import { createRecountTables } from './recounts/model';
import { createRoutingTables } from './routing/model';
import { createEstateTables } from './estate/model';
import { createRuleTables } from './rules/model';
import { createRoomsTables } from './standIns/rooms/model';
import { createSessionTables } from './sessions/model';
import { createSpentTables } from './spent/model';
import { createTicketTables } from './tickets/model';
import { createTimerTables } from './timers/model';
import { createWorklistTables } from './worklists/model';

/** All tables, each declared with its subject. */
export function createTables(sequelize: Sequelize) {
  return {
    ...createPeopleTables(sequelize),
    ...createOrganisationTables(sequelize),
    ...createSessionTables(sequelize),
    ...createCatalogueTables(sequelize),
    ...createTicketTables(sequelize),
    ...createApprovalTables(sequelize),
    ...createAbsenceTables(sequelize),
    ...createFileTables(sequelize),
    ...createJournalTables(sequelize),
    ...createClockTables(sequelize),
    ...createPlanTables(sequelize),
    ...createTimerTables(sequelize),
    ...createMeasureTables(sequelize),
    ...createRecountTables(sequelize),
    ...createNotificationTables(sequelize),
    ...createMailTables(sequelize),
    ...createChatTables(sequelize),
    ...createReplayTables(sequelize),
    ...createConversationTables(sequelize),
    ...createRoomsTables(sequelize),
    ...createWorklistTables(sequelize),
    ...createBulkTables(sequelize),
    ...createKnowledgeTables(sequelize),
    ...createAssistantTables(sequelize),
    ...createProcedureTables(sequelize),
    ...createImportTables(sequelize),
    ...createTemplateTables(sequelize),
    ...createReadyTextTables(sequelize),
    ...createRoutingTables(sequelize),
    ...createSpentTables(sequelize),
    ...createRuleTables(sequelize),
    ...createEstateTables(sequelize),
    ...createNoticeTables(sequelize),
    ...createWorkTables(sequelize),
    ...createProblemTables(sequelize),
    ...createProgramTables(sequelize),
    ...createWebhookTables(sequelize),
    ...createCallTables(sequelize),
    ...createAuditTables(sequelize),
    ...createPrivacyTables(sequelize),
    ...createSignOnTables(sequelize),
  };
}

export type Tables = ReturnType<typeof createTables>;
