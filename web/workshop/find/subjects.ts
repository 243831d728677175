const SUBJECTS = [
  'people',
  'services',
  'things',
  'calendars',
  'promises',
  'hours',
  'routing',
  'rules',
  'procedures',
  'assistant',
  'chat',
  'lines',
  'mail',
  'programs',
  'signOn',
  'records',
  'running',
  'leaving',
] as const;
export type Subject = (typeof SUBJECTS)[number];

/** Of the whole organisation, and so for administrators alone. */
const OF_ADMINISTRATORS = new Set<Subject>([
  'people',
  'things',
  'mail',
  'programs',
  'signOn',
  'records',
  'running',
  'leaving',
]);

/** What the Workshop is about, for someone. */
export const listSubjects = ({ isAdministrator }: { isAdministrator: boolean }): Subject[] =>
  SUBJECTS.filter((subject) => isAdministrator || !OF_ADMINISTRATORS.has(subject));
