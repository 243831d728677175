import { absenceEndpoints } from './absences';
import { approvalEndpoints } from './approvals';
import { bulkEndpoints } from './bulk';
import { callEndpoints } from './calls';
import { runningEndpoints } from './running';
import { calendarEndpoints } from './calendars';
import { catalogueEndpoints } from './catalogue';
import { chatEndpoints } from './chat';
import { clockEndpoints } from './clocks';
import { complianceEndpoints } from './compliance';
import { conversationEndpoints } from './conversations';
import { forPeople } from './endpoint';
import { figureEndpoints } from './figures';
import { fileEndpoints } from './files';
import { importEndpoints } from './imports';
import { mailEndpoints } from './mail';
import { notificationEndpoints } from './notifications';
import { organisationEndpoints } from './organisation';
import { peopleEndpoints } from './people';
import { planEndpoints } from './plans';
import { assistantEndpoints } from './assistant';
import { knowledgeEndpoints } from './knowledge';
import { procedureEndpoints } from './procedures';
import { readyTextEndpoints } from './readyTexts';
import { routingEndpoints } from './routing';
import { estateEndpoints } from './estate';
import { measureEndpoints } from './measures';
import { noticeEndpoints } from './notices';
import { problemEndpoints } from './problems';
import { privacyEndpoints } from './privacy';
import { programEndpoints } from './programs';
import { signOnEndpoints } from './signOn';
import { workEndpoints } from './works';
import { recordEndpoints } from './records';
import { ruleEndpoints } from './rules';
import { serviceEndpoints } from './services';
import { sessionEndpoints } from './session';
import { spentEndpoints } from './spent';
import { surgeEndpoints } from './surge';
import { targetEndpoints } from './targets';
import { teamEndpoints } from './teams';
import { templateEndpoints } from './templates';
import { togetherEndpoints } from './together';
import { ticketEndpoints } from './tickets';
import { webhookEndpoints } from './webhooks';
import { wordsEndpoints } from './words';
import { worklistEndpoints } from './worklists';

/** Every call that the server answers, by subject. */
export const api = {
  session: sessionEndpoints,
  catalogue: catalogueEndpoints,
  services: serviceEndpoints,
  people: peopleEndpoints,
  organisation: organisationEndpoints,
  calendars: calendarEndpoints,
  teams: teamEndpoints,
  targets: targetEndpoints,
  files: fileEndpoints,
  tickets: ticketEndpoints,
  words: wordsEndpoints,
  worklists: worklistEndpoints,
  bulk: bulkEndpoints,
  surge: surgeEndpoints,
  spent: spentEndpoints,
  together: togetherEndpoints,
  routing: routingEndpoints,
  rules: ruleEndpoints,
  estate: estateEndpoints,
  measures: measureEndpoints,
  notices: noticeEndpoints,
  works: workEndpoints,
  problems: problemEndpoints,
  assistant: assistantEndpoints,
  knowledge: knowledgeEndpoints,
  procedures: procedureEndpoints,
  imports: importEndpoints,
  figures: figureEndpoints,
  templates: templateEndpoints,
  readyTexts: readyTextEndpoints,
  clocks: clockEndpoints,
  approvals: approvalEndpoints,
  plans: planEndpoints,
  absences: forPeople(absenceEndpoints),
  mail: mailEndpoints,
  chat: chatEndpoints,
  compliance: complianceEndpoints,
  conversations: forPeople(conversationEndpoints),
  notifications: forPeople(notificationEndpoints),
  programs: programEndpoints,
  signOn: signOnEndpoints,
  webhooks: webhookEndpoints,
  calls: callEndpoints,
  running: runningEndpoints,
  records: recordEndpoints,
  privacy: privacyEndpoints,
};
