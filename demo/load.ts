import { compileCalendar } from '../core/calendar';
import { isOpen } from '../core/tickets';
import { DEFAULT_WEIGHTS, getHeadStart } from '../core/worklist';
import { BREACH_PERCENT, findNotice, LATE, type Calendars } from '../core/targets';
import { LAST_RESORT } from '../server/catalogue/lastResort';
import { settleTicket } from '../server/clocks/ticketClocks';
import type { ClockRow, TargetRow } from '../server/clocks/model';
import { toNoticeRef } from '../server/clocks/settle';
import type { Table } from '../server/database/table';
import type { JournalRow } from '../server/journal/model';
import type { Listo } from '../server/listo';
import { mailTold } from '../server/mail/tell';
import { hand } from '../server/journal/consumer';
import { gatherAllFacts } from '../server/measures/facts';
import { tellingConsumer } from '../server/consumers';
import { setClosing } from '../server/hours/closing';
import { hashPassword } from '../server/sessions/sessions';
import { sealNow } from '../server/audit/seals';
import { loadPrograms } from './programs';
import { closesAt } from '../server/tickets/waitingConsumer';
import { createCalendars } from './calendars';
import { CATEGORIES } from './catalogue';
import { simulateEvents } from './events';
import { createEstate } from './estate';
import { createThingKinds } from './thingKinds';
import { createThingEntries, createTies } from './ties';
import { createOrganisation, SIGN_IN_PEOPLE } from './organisation';
import { simulatePlans } from './plans';
import { createRandom } from './random';
import { createReadyTexts, createSpent } from './hands';
import { createArticles, SYNONYMS } from './articles';
import { ASSISTANT_WORDS, createMatters, simulateTalks } from './assistant';
import { WORDS_SETTING } from '../server/assistant/words';
import { simulateKnowledge } from './knowledge';
import { createProcedures } from './procedures';
import { createRules } from './rules';
import type { ArticleUseRow } from '../server/knowledge/model';
import { PROVIDER } from './signOn';
import { SYNONYMS_SETTING } from '../server/knowledge/library';
import { loadConversations } from './lines';
import { loadRooms } from './rooms';
import { createServices } from './services';
import { simulate } from './simulate';
import type { Story, StoryEntry } from './story';
import { createTargets } from './targets';
import { createTemplates } from './templates';

const SEED = 20_418;
const CHUNK = 400;
const AT_ONCE = 3;
const TOLD_MS = 2 * 86_400_000;
/** What the demo people's password is, for those who sign in by name. */
export const DEMO_PASSWORD = 'a calm crossing';

export type Progress = (what: string, share: number) => void;

async function insertInChunks<Row extends object>(
  table: Table<Row>,
  rows: Row[],
  onChunk: (share: number) => void = () => undefined,
): Promise<void> {
  const starts = Array.from({ length: Math.ceil(rows.length / CHUNK) }, (_, i) => i * CHUNK);
  let inserted = 0;
  const work = async (): Promise<void> => {
    for (let at = starts.shift(); at !== undefined; at = starts.shift()) {
      await table.insertAll(rows.slice(at, at + CHUNK));
      inserted += CHUNK;
      onChunk(Math.min(1, inserted / rows.length));
    }
  };
  // The database writes some while the next are made ready.
  await Promise.all(Array.from({ length: AT_ONCE }, work));
}

type Clocks = { clocks: ClockRow[]; notices: StoryEntry[] };

/** The word that a notice would have been, had it been given at its instant. */
function toEntry(
  target: TargetRow,
  { ticketNumber, work }: ClockRow,
  [what, at]: ClockRow['owed'][number],
): StoryEntry {
  const percent = what === LATE ? BREACH_PERCENT : Number(what);
  const notice = findNotice(target.notices, percent);
  const frame = {
    at,
    actorId: null,
    via: 'timer',
    ticketNumber,
    work,
    audience: 'team',
    changes: {},
  } as const;
  const data = {
    ...{ targetId: target.id, target: target.definition.name, dueAt: at, isOverdueNotice: false },
    ...(notice && { tell: notice.tell }),
  };
  return what === LATE
    ? { ...frame, type: 'late', data }
    : { ...frame, type: 'warned', data: { ...data, percent } };
}

/** The clocks of a story, and the notices that they gave on the way. */
function clocksOf(
  { ticket, entries }: Story,
  targets: TargetRow[],
  { calendars, now, goingFirst }: { calendars: Calendars; now: number; goingFirst: Set<string> },
): Clocks {
  const settled = settleTicket(ticket, { entries, known: [] }, { targets, calendars, now });
  ticket.tightestDueAt = settled.tightestDueAt;
  if (!isOpen(ticket.state)) ticket.waitsSince = null;
  const goesFirst = goingFirst.has(ticket.requesterId);
  ticket.headStart = getHeadStart(DEFAULT_WEIGHTS, { ...ticket, goesFirst });
  const notices: StoryEntry[] = [];
  const clocks = settled.clocks.map((clock) => {
    const target = targets.find(({ id }) => id === clock.targetId)!;
    const given = clock.owed.filter(([, at]) => at <= now);
    const owed = clock.owed.filter(([, at]) => at > now);
    notices.push(...given.map((notice) => toEntry(target, clock, notice)));
    const fired = given.map(([what, at]) => toNoticeRef(clock.work, { targetId: clock.targetId, what }, at));
    return { ...clock, fired, owed, nextAt: owed[0]?.[1] ?? null };
  });
  return { clocks, notices };
}

/** Entries of all stories in the order in which they happened, numbered as the journal numbers them. */
function toJournal(entries: StoryEntry[]): JournalRow[] {
  const order = entries
    .map((entry, i) => ({ entry, i }))
    .sort((a, b) => a.entry.at - b.entry.at || a.i - b.i);
  return order.map(({ entry }, i) => ({ ...entry, id: i + 1, position: i + 1 }));
}

/** Tells people of what happened lately, by the same rules as later. */
async function tellLately(listo: Listo, journal: JournalRow[], now: number): Promise<void> {
  const lately = journal.filter(({ at }) => at > now - TOLD_MS);
  await listo.db.transaction((tx) => hand({ listo, tx }, tellingConsumer, lately));
  await listo.db.run('UPDATE notifications SET readAt = at WHERE at < :before', {
    before: now - 6 * 3_600_000,
  });
}

/** Those who have to decide find a mail that asks them to. */
async function mailOpenAsks(listo: Listo): Promise<void> {
  const { tables, transaction } = listo.db;
  const open = await tables.approvals.find({ outcome: 'open' });
  const asks = await tables.asks.find({ approvalId: open.map(({ id }) => id), decision: null });
  for (const { ticketNumber, askedId } of asks) {
    const ticket = (await tables.tickets.findOne({ number: ticketNumber }))!;
    const [entry] = await tables.journal.find({ ticketNumber, type: 'asked' }, { limit: 1 });
    await transaction((tx) =>
      mailTold({ listo, tx }, [
        { personId: askedId, event: 'asked', relation: 'approver', entry: entry!, ticket },
      ]),
    );
  }
}

/** Fills an empty database with Solvarra Ferries: people, catalogue, targets, six months of tickets and a busy today. */
export async function loadDemo(
  listo: Listo,
  onProgress: Progress,
): Promise<{ tickets: number; entries: number }> {
  const { tables } = listo.db;
  const now = listo.clock.now();
  const random = createRandom(SEED);
  onProgress('People and catalogue', 0);
  const specs = createCalendars(new Date(now).getUTCFullYear());
  const organisation = createOrganisation(random);
  const services = createServices();
  const targets = createTargets();
  const passwordHash = await hashPassword(DEMO_PASSWORD);
  for (const person of organisation.people)
    if (SIGN_IN_PEOPLE.includes(person.id)) person.passwordHash = passwordHash;
  await tables.calendars.insertAll(Object.entries(specs).map(([id, spec]) => ({ id, spec, version: 1 })));
  await tables.sites.insertAll(organisation.sites);
  await insertInChunks(tables.people, organisation.people, (share) =>
    onProgress('People and catalogue', share),
  );
  await tables.teams.insertAll(organisation.teams);
  await tables.groups.insertAll(organisation.groups);
  await tables.members.insertAll(organisation.members);
  await tables.categories.insertAll(CATEGORIES);
  const estate = createEstate(organisation, createRandom(SEED + 5), now);
  await tables.thingKinds.insertAll(createThingKinds());
  await tables.things.insertAll(estate.things);
  await tables.thingNeeds.insertAll(estate.needs);
  await tables.services.insertAll(services);
  await tables.targets.insertAll(targets);
  await tables.procedures.insertAll(createProcedures());
  await tables.rules.insertAll(createRules(now));
  await tables.readyTexts.insertAll(createReadyTexts());
  await tables.templates.insertAll(createTemplates());

  const calendars = Object.fromEntries(
    Object.entries(specs).map(([id, spec]) => [id, compileCalendar(spec)]),
  );
  const stories = simulate({ random, organisation, services, calendars, now }, (share) =>
    onProgress('Six months of tickets', share),
  );
  const goingFirst = new Set(organisation.people.filter((person) => person.goesFirst).map(({ id }) => id));
  const clocks = stories.map((story) => clocksOf(story, targets, { calendars, now, goingFirst }));
  const journal = toJournal([
    ...stories.flatMap(({ entries }) => entries),
    ...clocks.flatMap(({ notices }) => notices),
    ...createThingEntries(estate.things, now),
  ]);
  const knowledgeRandom = createRandom(SEED + 2);
  const { articles, versions } = createArticles(knowledgeRandom, organisation.members, now);
  const { uses, questions } = simulateKnowledge({
    ...{ random: knowledgeRandom, articles, stories, now },
    people: organisation.people,
  });
  await tables.articles.insertAll(articles);
  await tables.articleVersions.insertAll(versions);
  await insertInChunks(tables.articleUses, uses as ArticleUseRow[], (share) =>
    onProgress('Knowledge', share),
  );
  await tables.questions.insertAll(questions);
  await tables.settings.insert({ name: SYNONYMS_SETTING, value: SYNONYMS });
  await insertInChunks(
    tables.tickets,
    stories.map(({ ticket }) => ticket),
    (share) => onProgress('Tickets', share),
  );
  await tables.ticketThings.insertAll(
    createTies(
      stories.map(({ ticket }) => ticket),
      estate.things,
      { people: organisation.people, random: createRandom(SEED + 6) },
    ),
  );
  await insertInChunks(
    tables.messages,
    stories.flatMap(({ messages }) => messages),
    (share) => onProgress('Messages', share),
  );
  await insertInChunks(tables.journal, journal, (share) => onProgress('Journal', share));
  await insertInChunks(
    tables.clocks,
    clocks.flatMap((each) => each.clocks),
    (share) => onProgress('Clocks', share),
  );
  await tables.approvals.insertAll(stories.flatMap(({ approval }) => approval ?? []));
  await tables.asks.insertAll(stories.flatMap(({ asks }) => asks));
  await tables.spent.insertAll(
    createSpent(
      createRandom(SEED + 1),
      stories.map(({ ticket }) => ticket),
      now,
    ),
  );
  for (const { ticket } of stories.filter((story) => story.ticket.state === 'done')) {
    const at = (await closesAt(listo, ticket))!;
    await tables.timers.insert({ ticketNumber: ticket.number, kind: 'closeTicket', ref: '', at });
  }
  for (const team of organisation.teams) await listo.db.transaction((tx) => setClosing({ listo, tx }, team));
  await tellLately(listo, journal, now);
  await simulatePlans(listo, (share) => onProgress('Plans', share));
  onProgress('Conversations', 0);
  await tables.matters.insertAll(createMatters(now));
  await tables.settings.insert({ name: WORDS_SETTING, value: ASSISTANT_WORDS });
  await simulateEvents(listo);
  await simulateTalks(listo, createRandom(SEED + 3), {
    people: organisation.people,
    tickets: stories.map(({ ticket }) => ticket),
  });
  await tables.settings.insert({ name: LAST_RESORT, value: { serviceId: 'other' } });
  await tables.settings.insert({ name: 'organisation', value: 'Solvarra Ferries' });
  await tables.settings.insert({ name: 'demo', value: { people: SIGN_IN_PEOPLE } });
  await tables.signOnProviders.insert(PROVIDER);
  await loadRooms(listo, organisation.people);
  await loadConversations(
    listo,
    createRandom(SEED + 4),
    organisation.people.slice(0, 400).map(({ id }) => id),
  );
  await mailOpenAsks(listo);
  onProgress('Figures', 0);
  await gatherAllFacts({ listo });
  await loadPrograms(listo);
  onProgress('Seals', 0);
  await listo.db.transaction((tx) => sealNow(listo, tx));
  onProgress('Done', 1);
  return { tickets: stories.length, entries: journal.length };
}
