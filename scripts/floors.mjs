/**
 * The floors of the server, lowest first: each subject imports by value only from its own floor and those below. What
 * stands beside the subjects puts them together, and may import all.
 */
const SUBJECTS = [
  ['database', 'http', 'journal', 'timers', 'loops', 'jobs', 'live', 'files', 'calls', 'interface'],
  ['people', 'sessions', 'programs', 'teams', 'calendars'],
  ['catalogue'],
  ['tickets'],
  [
    ...[
      'clocks',
      'targets',
      'worklists',
      'hours',
      'spent',
      'procedures',
      'readyTexts',
      'templates',
      'together',
    ],
    ...['routing', 'surge', 'knowledge', 'words', 'estate'],
  ],
  ['approvals', 'absences', 'plans'],
  ['assistant', 'conversations', 'notifications', 'mail', 'chat'],
  [
    'bulk',
    'imports',
    'recounts',
    'replays',
    'compliance',
    'figures',
    'leaving',
    'organisation',
    'signOn',
    'personCards',
    'rules',
  ],
  ['notices', 'works', 'problems', 'measures', 'webhooks', 'audit', 'privacy', 'running'],
  ['standIns'],
];
export const FLOORS = {
  subjects: Object.fromEntries(SUBJECTS.flatMap((subjects, i) => subjects.map((name) => [name, i + 1]))),
  /** What has no subject and every floor uses. */
  beside: { listo: 1, ports: 1, clock: 1, config: 1, lowPriority: 1 },
  composition: SUBJECTS.length + 1,
};
