import { changesFor, factsOfEntry, type EntryFacts, type TicketEntryKind } from '../../core/journal';
import type { Entry, Ticket } from '../../contract/tickets';
import type { LocalText } from '../../core/forms';
import type { FileRow } from '../files/model';
import type { JournalRow } from '../journal/model';
import type { Listo } from '../listo';
import { listAnswered } from './answered';
import { definitionOf } from '../catalogue/versions';
import { readChangeNames } from './changeNames';
import { readPeople } from '../people/names';
import type { MessageRow, TicketRecord } from './model';

/** What is shown of each: of a long thread, every value costs. */
const ENTRY = [
  'id',
  'at',
  'type',
  'actorId',
  'via',
  'audience',
  'changes',
  'data',
  'ticketNumber',
  'byRules',
];
const MESSAGE = ['id', 'text', 'format', 'readBy', 'isByTeam', 'links'];
const FILE = ['id', 'name', 'type', 'size', 'messageId', 'ticketNumber'];
/** What tells of another ticket's own time, or of what this one says itself. */
const NOT_BROUGHT = new Set(['warned', 'dueWarned', 'late', 'putUnder']);

type SentFile = Ticket['files'][number];
type Said = { entries: JournalRow[]; messages: MessageRow[]; files: FileRow[] };

/** What was said and done on tickets, in order. */
async function readSaid({ db }: Listo, numbers: number[], isTeamSide: boolean): Promise<Said> {
  const ticketNumber = numbers;
  const audience = isTeamSide ? {} : { audience: 'requester' as const };
  const readBy = isTeamSide ? {} : { readBy: 'requester' as const };
  const [entries, messages, files] = await Promise.all([
    db.tables.journal.find({ ticketNumber, ...audience }, { order: ['id'], attributes: ENTRY }),
    db.tables.messages.find({ ticketNumber, ...readBy }, { attributes: MESSAGE }),
    db.tables.files.find({ ticketNumber }, { attributes: FILE }),
  ]);
  return { entries, messages, files };
}

const asFile = ({ id, name, type, size }: FileRow): SentFile => ({ id, name, type, size });

/** What the requester of a ticket said first: in the form's long texts, else its heading. */
async function readOpening(listo: Listo, ticket: TicketRecord, files: FileRow[]): Promise<Entry['message']> {
  const { form } = await definitionOf(listo, ticket);
  const said = listAnswered(form, ticket.answers).flatMap(({ field, value }) =>
    field.kind === 'longText' ? [String(value)] : [],
  );
  return {
    id: `opening-${ticket.number}`,
    text: said.join('\n') || ticket.title,
    ...{ format: 'plain', readBy: 'requester', isByTeam: false, links: [] },
    files: files
      .filter(({ messageId, ticketNumber }) => messageId === null && ticketNumber === ticket.number)
      .map(asFile),
  };
}

/** The names of the rules that wrote some entries, by id. */
async function readRuleNames({ db }: Listo, entries: JournalRow[]): Promise<Map<string, LocalText>> {
  const ids = [...new Set(entries.flatMap(({ byRules }) => byRules ?? []))];
  const rules =
    ids.length === 0 ? [] : await db.tables.rules.find({ id: ids }, { attributes: ['id', 'name'] });
  return new Map(rules.map(({ id, name }) => [id, name]));
}

/** The rule that wrote an entry: the last of its chain. */
function ruleOf(byRules: string[] | null | undefined, names: Map<string, LocalText>): Entry['rule'] {
  const id = byRules?.at(-1);
  return id === undefined ? null : { id, name: names.get(id) ?? null };
}

/** How a team names its rules is its own business. */
const withoutRule = ({ rule: _, ruleId: __, ...data }: Entry['data']): Entry['data'] => data;

/**
 * What happened on a ticket, in order, as far as the reader may see it, each with the words sent with it; and the
 * files that belong to none of them.
 */
export async function readEntries(
  listo: Listo,
  number: number,
  isTeamSide: boolean,
): Promise<{ entries: Entry[]; files: SentFile[] }> {
  // What goes on here as the same matter brought its thread along, for the team: one requester's words are not another's.
  const [own, below] = await Promise.all([
    readSaid(listo, [number], isTeamSide),
    isTeamSide ? listo.db.tables.tickets.find({ underNumber: number, underAs: 'same' }) : [],
  ]);
  const theirs =
    below.length === 0
      ? null
      : await readSaid(
          listo,
          below.map((ticket) => ticket.number),
          isTeamSide,
        );
  const brought = (theirs?.entries ?? []).filter(({ type }) => !NOT_BROUGHT.has(type));
  const entries = [...own.entries, ...brought].sort((one, other) => one.id - other.id);
  const messages = [...own.messages, ...(theirs?.messages ?? [])];
  const files = [...own.files, ...(theirs?.files ?? [])];
  const people = await readPeople(
    listo,
    entries.flatMap((entry) => {
      const { personId = null, fromId = null } = factsOfEntry(entry);
      return [entry.actorId, personId, fromId];
    }),
  );
  const messagesById = new Map<unknown, MessageRow>(messages.map((message) => [message.id, message]));
  const messageOf = (id: unknown): Entry['message'] => {
    const message = messagesById.get(id);
    if (!message) return null;
    const sent = files.filter(({ messageId }) => messageId === message.id);
    const { text, format, readBy: readers, isByTeam, links } = message;
    return {
      id: message.id,
      text,
      format,
      readBy: readers,
      isByTeam,
      links,
      files: sent.map(asFile),
    };
  };
  const openings = new Map<number, Entry['message']>();
  for (const ticket of below) openings.set(ticket.number, await readOpening(listo, ticket, files));
  const nameIn = (data: EntryFacts): Entry['data'] => ({
    ...data,
    ...(data.personId && { person: people.get(data.personId)?.name }),
    ...(data.fromId && { former: people.get(data.fromId)?.name }),
  });
  const reader = isTeamSide ? 'team' : 'requester';
  const named = await readChangeNames(listo, entries);
  const rules = await readRuleNames(listo, isTeamSide ? entries : []);
  const shown = entries.map(
    ({ id, at, type, actorId, via, audience, changes, data, ticketNumber, byRules }) => ({
      id,
      at,
      // What is of a ticket is of one of its kinds.
      type: type as TicketEntryKind,
      actor: actorId === null ? null : (people.get(actorId) ?? null),
      via,
      rule: isTeamSide ? ruleOf(byRules, rules) : null,
      audience,
      from: ticketNumber === number ? null : ticketNumber,
      changes: named(type, changesFor(reader, changes)),
      message:
        type === 'sent' ? (openings.get(ticketNumber) ?? null) : messageOf(factsOfEntry({ data }).messageId),
      data: isTeamSide ? nameIn(data) : withoutRule(nameIn(data)),
    }),
  );
  // What concerns its reader in nothing is no entry for them.
  const said = shown.filter(({ type, changes }) => type !== 'changed' || Object.keys(changes).length > 0);
  return { entries: said, files: own.files.filter(({ messageId }) => messageId === null).map(asFile) };
}
