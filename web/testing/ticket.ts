import type { Entry, Ticket } from '../../contract/tickets';

const person = (id: string, name: string) => ({ id, name, goesFirst: false });
export const TOMAS = person('tomas', 'Tomás Veiga');
export const AT = Date.parse('2026-11-25T10:00:00Z');

let lastId = 0;
/** An entry of a ticket's journal, made by the application itself unless said otherwise. */
export const entryOf = (type: Entry['type'], given: Partial<Entry> = {}): Entry => ({
  ...{ id: ++lastId, at: AT, type, actor: null, via: 'rule', audience: 'team', from: null },
  ...{ changes: {}, data: {}, message: null, rule: null },
  ...given,
});

/** A ticket of Tomás's with these entries. */
export const ticketOf = (entries: Entry[], given: Partial<Ticket> = {}): Ticket => ({
  ...{ number: 1204, version: 1, kind: 'incident', title: 'Kiosk 3 frozen' },
  service: { id: 'kiosk', title: { en: 'Ticket kiosk', pt: 'Quiosque' } },
  requester: {
    ...{ ...TOMAS, title: 'Terminal lead', site: 'Port Alder', timeZone: 'Europe/Lisbon', phone: '' },
    ...{ vessel: null, device: null, manager: null, openBesides: 0 },
  },
  raisedBy: null,
  team: { id: 'onboard', name: { en: 'Onboard systems', pt: 'Sistemas de bordo' }, calendarId: 'office' },
  ...{
    group: null,
    assignee: null,
    isTakenUp: false,
    state: 'received',
    heldFor: null,
    heldUntil: null,
    heldReason: null,
  },
  ...{ solution: null, isDeclined: false, ownWords: null, progress: null, progressFinishedAt: null },
  ...{ priority: 'P3', impact: 'person', urgency: 'slowsWork', priorityReason: null, via: 'portal' },
  ...{ createdAt: AT, due: null, closesAt: null, rating: null, ratingWord: null, answers: [], questions: [] },
  ...{ missing: [], place: 'Port Alder' },
  ...{
    files: [],
    alsoTold: [],
    room: null,
    conversation: null,
    collaborators: [],
    approvals: [],
    plan: null,
    clocks: [],
    moves: [],
    rights: [],
  },
  entries,
  ...given,
});
