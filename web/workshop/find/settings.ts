import type { Subject } from './subjects';

/** What can be set up: on which subject's page, and under which of its words it stands there. */
export const SETTINGS = [
  { id: 'workingHours', subject: 'calendars', mark: 'workshop/calendar/week' },
  { id: 'holidays', subject: 'calendars', mark: 'workshop/calendar/holidays' },
  { id: 'tryCalendar', subject: 'calendars', mark: 'workshop/calendar/try' },
  { id: 'sites', subject: 'hours', mark: 'workshop/team/sites' },
  { id: 'teams', subject: 'hours', mark: 'workshop/team/new' },
  { id: 'confidential', subject: 'hours', mark: 'workshop/team/new' },
  { id: 'outOfHours', subject: 'hours', mark: 'workshop/team/change' },
  { id: 'progressLabels', subject: 'hours', mark: 'workshop/team/labels' },
  { id: 'decidesInChat', subject: 'hours', mark: 'workshop/team/decidesInChat' },
  { id: 'answersMail', subject: 'hours', mark: 'workshop/team/answersMail' },
  { id: 'givenOnBy', subject: 'hours', mark: 'workshop/team/givenOnBy' },
  { id: 'groups', subject: 'hours', mark: 'workshop/team/groups' },
  { id: 'addPerson', subject: 'people', mark: 'people/add' },
  { id: 'peopleTable', subject: 'people', mark: 'people/fromTable' },
  { id: 'administrators', subject: 'people', mark: 'people/who' },
  { id: 'teamRoles', subject: 'people', mark: 'people/who' },
  { id: 'managers', subject: 'people', mark: 'people/find' },
  { id: 'leaving', subject: 'leaving', mark: 'workshop/leaver/who' },
  { id: 'newService', subject: 'services', mark: 'services/new' },
  { id: 'forms', subject: 'services' },
  { id: 'approvalSteps', subject: 'services' },
  { id: 'plans', subject: 'services' },
  { id: 'audience', subject: 'services' },
  { id: 'subjects', subject: 'services', mark: 'services/subjects/open' },
  { id: 'switchOff', subject: 'services' },
  { id: 'targets', subject: 'promises' },
  { id: 'warnings', subject: 'promises', mark: 'workshop/target/edit' },
  { id: 'routing', subject: 'routing', mark: 'workshop/route/wayName' },
  { id: 'capacity', subject: 'routing', mark: 'workshop/route/can' },
  { id: 'skills', subject: 'routing', mark: 'workshop/route/skills' },
  { id: 'rules', subject: 'rules', mark: 'rules/new' },
  { id: 'procedures', subject: 'procedures', mark: 'procedures/new' },
  { id: 'thingKinds', subject: 'things', mark: 'estate/kindPage/new' },
  { id: 'thingKeepers', subject: 'things' },
  { id: 'matters', subject: 'assistant', mark: 'assistant/workshop/new' },
  { id: 'sureness', subject: 'assistant', mark: 'assistant/workshop/sure' },
  { id: 'assistantWords', subject: 'assistant', mark: 'assistant/workshop/words' },
  { id: 'chatRooms', subject: 'chat', mark: 'rooms/setUp/room' },
  { id: 'chatNotices', subject: 'chat' },
  { id: 'messageToTicket', subject: 'chat', mark: 'rooms/setUp/form' },
  { id: 'lines', subject: 'lines', mark: 'talk/lines/add' },
  { id: 'lineSilence', subject: 'lines', mark: 'talk/lines/askAfter' },
  { id: 'mailIn', subject: 'mail', mark: 'mail/came' },
  { id: 'mailOut', subject: 'mail', mark: 'mail/went' },
  { id: 'mailTexts', subject: 'mail', mark: 'mail/texts' },
  { id: 'programs', subject: 'programs', mark: 'programs/new' },
  { id: 'webhooks', subject: 'programs' },
  { id: 'outgoingCalls', subject: 'programs', mark: 'programs/calls' },
  { id: 'records', subject: 'records', mark: 'records/csv' },
  { id: 'seals', subject: 'records', mark: 'records/seals/title' },
] as const satisfies { id: string; subject: Subject; mark?: string }[];

/** One of what can be set up. */
export type SettingId = (typeof SETTINGS)[number]['id'];

/** The page on which a setting stands, and is marked. */
export const toSetting = ({ id, subject }: (typeof SETTINGS)[number]): string =>
  `/workshop/${subject}?setting=${id}`;
