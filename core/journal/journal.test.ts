import { TELLING, TOLD_EVENTS } from '../telling';
import {
  factsOfEntry,
  isShown,
  TICKET_ENTRIES,
  TICKET_ENTRY_KINDS,
  toldOf,
  type JournalEntry,
} from './index';

test('people are told only of what the table of who is told has readers for', () => {
  const told = TICKET_ENTRY_KINDS.flatMap((kind) => toldOf(kind) ?? []);
  for (const event of told) expect(TELLING[event].length).toBeGreaterThan(0);
  // Of being called people are told beside, whatever else an entry is; of steps and askings by several kinds.
  const neverAlone = TOLD_EVENTS.filter((event) => !told.includes(event));
  expect(neverAlone).toEqual(['mentioned']);
});

test('what people are told of can be read where they are led to', () => {
  const untold = TICKET_ENTRY_KINDS.filter((kind) => toldOf(kind) !== null && !isShown(kind));
  // Those who asked back read the answer itself.
  expect(untold).toEqual(['questionAnswered']);
});

test.each(['teamMade', 'personLeft', 'nothing', 'toString', '__proto__'])(
  '%s is nothing of a ticket: nobody is told, nothing is shown',
  (kind) => {
    expect([toldOf(kind), isShown(kind)]).toEqual([null, false]);
  },
);

test('what an entry carries is read by its kind, or whatever its kind', () => {
  const entry: JournalEntry = {
    ...{ at: 5, actorId: 'rui', via: 'desk', work: 'ticket', audience: 'team', changes: {}, ticketNumber: 7 },
    ...{ type: 'wentOn', data: { minutes: 30 } },
  };
  const minutes = [entry as JournalEntry].map((each) => (each.type === 'wentOn' ? each.data.minutes : null));
  expect(minutes).toEqual([30]);
  expect(factsOfEntry(entry).minutes).toBe(30);
  expect(factsOfEntry(entry).personId).toBeUndefined();
  expect(TICKET_ENTRIES.wentOn).toEqual({ told: null, isShown: true });
});
