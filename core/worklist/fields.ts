import { DOORS, HELD_FOR, IMPACTS, PRIORITIES, TICKET_KINDS, TICKET_STATES, URGENCIES } from '../tickets';

/** The kinds of work that stand in lists: tickets, steps of plans whose turn it is, approvals that wait for a person. */
export const WORKS = ['ticket', 'step', 'decision'] as const;
/** What a list is of: tickets, or steps of plans. */
export type Work = (typeof WORKS)[number];

/** What a field of a list holds; `people` is asked only whether it contains someone. */
export type ListField =
  | { kind: 'text' | 'number' | 'instant' | 'flag' | 'people' }
  | { kind: 'person' | 'team' | 'group' | 'service' | 'site' | 'progress'; mayBeNothing?: true }
  | { kind: 'choice'; choices: readonly string[]; mayBeNothing?: true };

/** All that conditions of worklists can ask for, by name. The database, the browser and the sentences go by it. */
export const LIST_FIELDS = {
  work: { kind: 'choice', choices: WORKS },
  kind: { kind: 'choice', choices: TICKET_KINDS },
  state: { kind: 'choice', choices: TICKET_STATES },
  heldFor: { kind: 'choice', choices: HELD_FOR, mayBeNothing: true },
  priority: { kind: 'choice', choices: PRIORITIES },
  impact: { kind: 'choice', choices: IMPACTS },
  urgency: { kind: 'choice', choices: URGENCIES },
  via: { kind: 'choice', choices: DOORS },
  teamId: { kind: 'team' },
  groupId: { kind: 'group', mayBeNothing: true },
  assigneeId: { kind: 'person', mayBeNothing: true },
  requesterId: { kind: 'person' },
  raisedById: { kind: 'person', mayBeNothing: true },
  alsoToldIds: { kind: 'people' },
  serviceId: { kind: 'service' },
  siteId: { kind: 'site' },
  progressId: { kind: 'progress', mayBeNothing: true },
  department: { kind: 'text' },
  vessel: { kind: 'text' },
  title: { kind: 'text' },
  said: { kind: 'text' },
  place: { kind: 'text' },
  number: { kind: 'number' },
  rating: { kind: 'number' },
  estimateMinutes: { kind: 'number' },
  spentMinutes: { kind: 'number' },
  createdAt: { kind: 'instant' },
  changedAt: { kind: 'instant' },
  dueAt: { kind: 'instant' },
  waitsSince: { kind: 'instant' },
  resolvedAt: { kind: 'instant' },
  closedAt: { kind: 'instant' },
  answered: { kind: 'flag' },
  goesFirst: { kind: 'flag' },
  isConfidential: { kind: 'flag' },
  isLate: { kind: 'flag' },
  isDueToday: { kind: 'flag' },
} as const satisfies Record<string, ListField>;

/** A field that the conditions of lists may ask for. */
export type ListFieldName = keyof typeof LIST_FIELDS;

/** All fields that the conditions of lists may ask for. */
export const LIST_FIELD_NAMES = Object.keys(LIST_FIELDS) as ListFieldName[];

/** A field by its name; null: there is none. */
export function getListField(name: string): ListField | null {
  return Object.hasOwn(LIST_FIELDS, name) ? LIST_FIELDS[name as ListFieldName] : null;
}
