import { nanoid } from 'nanoid';
import type { Transaction } from 'sequelize';
import type { TalkInput, TalkView } from '../../contract/assistant';
import {
  understandMessage,
  maskSecrets,
  NEW_TALK,
  proceed,
  titleOf,
  type Input,
  type Likely,
  type Next,
  type Talk,
  type Turn,
} from '../../core/assistant';
import { inLanguage } from '../../core/knowledge';
import { isAgent } from '../../core/rights';
import { isDuplicate } from '../database/failures';
import { change, type Actor } from '../http/change';
import { findLastResort } from '../catalogue/lastResort';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import type { Listo } from '../listo';
import { findPersonAsViewer, type SignedIn } from '../sessions/viewer';
import { createTicket } from '../tickets/create';
import { writeWithin } from '../tickets/messages';
import { makeMove } from '../tickets/move';
import { keepArticleUses } from './articleUses';
import { readLearned, type Hearers, type Learned } from './learned';
import type { Said, TalkRow, TalkTurnRow } from './model';
import { showConfidential, showTurn } from './show';
import { listenToTalk } from './silence';
import { transcriptOf } from './transcript';
import { viewTalk } from './view';
import { greet, readOwnWords, withOwnWords } from './words';
import type { Changing, UnitOfWork } from '../unitOfWork';

const DAY_MS = 86_400_000;
const TITLE_LIMIT = 120;
const HEARD_LIMIT = 300;
const LIKELY_KEPT = 5;
/** Where what fits nothing goes. */

export const hearersOf = (viewer: SignedIn): Hearers => (isAgent(viewer) ? 'agents' : 'employees');

/** Begins a conversation, or goes on with the one that is still open from today. */
export async function startTalk({ listo, viewer, actor }: Changing, isAnew: boolean): Promise<TalkView> {
  const { tables, select } = listo.db;
  const now = listo.clock.now();
  if (!(await readOwnWords(listo)).isOn) throw new ProblemError('notFound');
  const row = await change(listo, actor, async (tx) => {
    const [open] = await select<TalkRow>(
      `SELECT * FROM talks WHERE personId = :personId AND endedAt IS NULL AND startedAt > :since
       ORDER BY startedAt DESC LIMIT 1`,
      { personId: viewer.id, since: now - DAY_MS },
      tx,
    );
    if (open && !isAnew) return open;
    if (open) await tables.talks.update({ id: open.id }, { endedAt: now, outcome: 'left' }, tx);
    const talk: TalkRow = {
      ...{ id: nanoid(12), personId: viewer.id, language: viewer.language, startedAt: now, endedAt: null },
      ...{ state: NEW_TALK, places: 1, matterId: null, confidentialTeamId: null, outcome: null },
      ...{ ticketNumber: null, rating: null },
    };
    await tables.talks.insert(talk, tx);
    const said = await greet(listo, viewer);
    await tables.talkTurns.insert(
      { talkId: talk.id, place: 0, at: now, isByPerson: false, said, likely: null },
      tx,
    );
    return talk;
  });
  return viewTalk(listo, row);
}

async function isLastByPerson({ db }: Listo, talkId: string): Promise<boolean> {
  const [last] = await db.tables.talkTurns.find({ talkId }, { order: [['place', 'DESC']], limit: 1 });
  return last?.isByPerson ?? false;
}

/** One's own conversation as it stands: what was said meanwhile. */
export async function readOwnTalk(listo: Listo, viewer: SignedIn, id: string): Promise<TalkView> {
  return viewTalk(listo, await requireOwn(listo, viewer, id));
}

async function requireOwn(listo: Listo, viewer: SignedIn, id: string): Promise<TalkRow> {
  const row = await listo.db.tables.talks.findOne({ id, personId: viewer.id });
  if (!row) throw new ProblemError('notFound');
  return row;
}

/** What the person did, as words in the conversation. */
async function sayInput(
  listo: Listo,
  { input, learned }: { input: TalkInput; learned: Learned },
  row: TalkRow,
): Promise<Said> {
  switch (input.kind) {
    case 'words':
      return { say: 'words', text: input.text };
    case 'pick': {
      const name = learned.matters.find(({ id }) => id === input.id)?.name;
      return { say: 'words', text: name ? inLanguage(name, row.language) : input.id };
    }
    case 'team': {
      const team = await listo.db.tables.teams.findOne({ id: input.id });
      return { say: 'words', text: team ? inLanguage(team.name, row.language) : input.id };
    }
    case 'helped':
      return { say: input.helped ? 'yes' : 'no' };
    default:
      return { say: input.kind };
  }
}

/** Words that were confirmed, or refused, are kept for the author to take over. */
async function keepHeard(
  { listo, tx }: UnitOfWork,
  row: TalkRow,
  { input, isRight }: { input: TalkInput; isRight: boolean },
): Promise<void> {
  const said = row.state.said.at(-1);
  const matterIds = input.kind === 'pick' ? [input.id] : row.state.offered;
  // What was said in confidence is nobody's example.
  if (row.confidentialTeamId !== null) return;
  if (said === undefined || said.length > HEARD_LIMIT) return;
  await listo.db.tables.heard.insertAll(
    matterIds.map((matterId) => ({
      ...{ matterId, words: said, language: row.language, isRight, at: listo.clock.now(), state: 'new' },
    })),
    tx,
  );
}

type Heard = { input: Input; likely: Likely[]; isMasked: boolean; shown: TalkInput };

function hear(learned: Learned, row: TalkRow, input: TalkInput): Heard {
  if (input.kind !== 'words') return { input, likely: [], isMasked: false, shown: input };
  const { text, isMasked } = maskSecrets(input.text);
  const { likely, offer } = understandMessage(learned.understanding, {
    ...{ text, language: row.language, sum: learned.sum },
  });
  return { input: { kind: 'words', text, offer }, likely, isMasked, shown: { kind: 'words', text } };
}

/** What was waited for is decided: the matter's steps go on, or it ends here. */
export async function goOnAfterDecision(
  { listo, tx }: UnitOfWork,
  talkId: string,
  isAgreed: boolean,
): Promise<void> {
  const row = await listo.db.tables.talks.findOne({ id: talkId }, tx, true);
  if (row?.state.phase !== 'waiting' || row.endedAt !== null) return;
  const viewer = await findPersonAsViewer(listo, row.personId);
  if (!viewer) return;
  const learned = await readLearned(listo, hearersOf(viewer));
  const matterOf = (id: string) => learned.matters.find((matter) => matter.id === id);
  const input = { kind: 'decided', isAgreed } as const;
  const { shown, talk } = await showAll(listo, proceed(row.state, input, matterOf), {
    ...{ viewer, learned, likely: [] },
  });
  const heard: Heard = { input, likely: [], isMasked: false, shown: { kind: 'none' } };
  await storeTurns({ listo, tx }, row, {
    ...{ own: null, shown, heard, talk, number: null, isHandOver: false, isRight: null },
    input: heard.shown,
  });
}

/** A service that nobody has to agree to, or not this time: the steps go on at once. */
async function goOnWhereNobodyDecides(listo: Listo, talkId: string): Promise<void> {
  const { tables } = listo.db;
  const row = await tables.talks.findOne({ id: talkId });
  if (row?.state.phase !== 'waiting' || row.ticketNumber === null) return;
  const ticket = await tables.tickets.findOne({ number: row.ticketNumber });
  if (ticket && !(ticket.state === 'held' && ticket.heldFor === 'approval'))
    await listo.db.transaction((tx) => goOnAfterDecision({ listo, tx }, talkId, true));
}

type Deed = Extract<Turn, { do: 'ticket' }>;

/** Goes on in a conversation: what is said is understood, answered, and, where it comes to that, made a ticket. */
export async function say(
  listo: Listo,
  { viewer, actor, id }: { viewer: SignedIn; actor: Actor; id: string },
  { input, isAgain = false }: { input: TalkInput; isAgain?: boolean },
): Promise<TalkView> {
  const row = await requireOwn(listo, viewer, id);
  if (row.endedAt !== null) return viewTalk(listo, row);
  const learned = await readLearned(listo, hearersOf(viewer));
  const heard = hear(learned, row, input);
  const matterOf = (matterId: string) => learned.matters.find((matter) => matter.id === matterId);
  const shown: Said[] = heard.isMasked ? [{ say: 'toldMasked' }] : [];
  const picked = input.kind === 'pick' ? matterOf(input.id) : undefined;
  if (picked && row.state.offered.includes(picked.id)) {
    const confidential = await showConfidential(listo, picked, row.language);
    if (confidential) shown.push(confidential);
  }
  const likely = heard.likely.length > 0 ? heard.likely : await lastLikely(listo, row);
  const next = await showAll(listo, proceed(row.state, heard.input, matterOf), { viewer, learned, likely });
  shown.push(...next.shown);
  const { deed } = next;
  const own = await sayInput(listo, { input: heard.shown, learned }, row);
  const store = (tx: Transaction, number: number | null): Promise<TalkRow> =>
    storeTurns({ listo, tx }, row, {
      ...{ own, shown, heard, talk: next.talk, number, isHandOver: deed?.isHandOver ?? false },
      isRight:
        input.kind === 'pick' ? true : input.kind === 'none' && row.state.offered.length > 0 ? false : null,
      input,
    });
  try {
    if (!deed) return await viewTalk(listo, await change(listo, actor, (tx) => store(tx, null)));
    await makeTicket(
      listo,
      { viewer, actor, row },
      { deed, kept: { talk: next.talk, kept: { own, store } } },
    );
    await goOnWhereNobodyDecides(listo, id);
  } catch (error) {
    if (!isDuplicate(error)) throw error;
    // What silence came to was said at the same instant: the person is heard all the same.
    if (!isAgain && !(await isLastByPerson(listo, id)))
      return say(listo, { viewer, actor, id }, { input, isAgain: true });
    // The same was said twice at once: the first stands.
  }
  return viewTalk(listo, await requireOwn(listo, viewer, id));
}

/** All turns as they are shown, and what is done besides; what has gone since is passed over. */
async function showAll(
  listo: Listo,
  { talk, turns }: Next,
  known: { viewer: SignedIn; learned: Learned; likely: Likely[] },
): Promise<{ talk: Talk; shown: Said[]; deed: Deed | null }> {
  const shown: Said[] = [];
  let deed: Deed | null = null;
  for (const turn of turns) {
    if ('do' in turn) {
      deed = turn;
      continue;
    }
    const said = await showTurn(listo, turn, { ...known, said: talk.said });
    if (said) shown.push(said);
    else {
      const matterOf = (id: string) => known.learned.matters.find((matter) => matter.id === id);
      const rest = await showAll(listo, proceed(talk, { kind: 'helped', helped: false }, matterOf), known);
      return { ...rest, shown: [...shown, ...rest.shown] };
    }
  }
  return { talk, shown, deed };
}

async function lastLikely({ db }: Listo, row: TalkRow): Promise<Likely[]> {
  const turns = await db.tables.talkTurns.find({ talkId: row.id }, { order: [['place', 'DESC']] });
  return turns.find(({ likely }) => likely !== null)?.likely ?? [];
}

/** The team in confidence, where what is offered or walked is its own. */
async function findConfidentialTeam(
  { listo: { db }, tx }: UnitOfWork,
  { offered, matterId }: Talk,
): Promise<string | null> {
  const [team] = await db.select<{ id: string }>(
    `SELECT t.id FROM matters m JOIN services s ON s.id = m.serviceId JOIN teams t ON t.id = s.teamId
     WHERE m.id IN (:ids) AND t.isConfidential LIMIT 1`,
    { ids: [...offered, matterId ?? ''] },
    tx,
  );
  return team?.id ?? null;
}

type Stored = {
  /** Null: nothing was said by the person. */
  own: Said | null;
  shown: Said[];
  heard: Heard;
  talk: TalkRow['state'];
  number: number | null;
  isHandOver: boolean;
  isRight: boolean | null;
  input: TalkInput;
};

async function storeTurns(
  { listo, tx }: UnitOfWork,
  row: TalkRow,
  { own, shown, heard, talk, number, isHandOver, isRight, input }: Stored,
): Promise<TalkRow> {
  const { tables } = listo.db;
  const at = listo.clock.now();
  const turn = (said: Said, isByPerson: boolean, i: number): TalkTurnRow => ({
    ...{ talkId: row.id, place: row.places + i, at, isByPerson, said },
    likely: isByPerson && heard.likely.length > 0 ? heard.likely.slice(0, LIKELY_KEPT) : null,
  });
  const usual = await readOwnWords(listo);
  // That it waits, and what else was named, is said after what it is written down as.
  const waiting = shown.findIndex(({ say }) => say === 'waiting' || say === 'other');
  const ticket = number === null ? [] : [{ say: 'ticket', number, isHandOver }];
  const all = shown
    .toSpliced(waiting < 0 ? shown.length : waiting, 0, ...ticket)
    .map((said) => withOwnWords(said, usual, row.language));
  await tables.talkTurns.insertAll(
    [...(own ? [turn(own, true, 0)] : []), ...all.map((said, i) => turn(said, false, own ? i + 1 : i))],
    tx,
  );
  if (isRight !== null) await keepHeard({ listo, tx }, row, { input, isRight });
  await keepArticleUses({ listo, tx }, row, { input, shown });
  const changes: Partial<TalkRow> = {
    ...{
      state: talk,
      places: row.places + (own ? 1 : 0) + all.length,
      matterId: talk.matterId,
      outcome: talk.outcome,
    },
    ...(talk.phase === 'ended' && { endedAt: at }),
    ...(number !== null && { ticketNumber: number }),
    confidentialTeamId: row.confidentialTeamId ?? (await findConfidentialTeam({ listo, tx }, talk)),
  };
  await tables.talks.update({ id: row.id }, changes, tx);
  const now = { ...row, ...changes };
  await listenToTalk({ listo, tx }, now, { lastSaidAt: at });
  return now;
}

/** Writes the ticket with what was answered in its fields and the whole conversation on its thread. */
async function makeTicket(
  listo: Listo,
  { viewer, actor, row }: { viewer: SignedIn; actor: Actor; row: TalkRow },
  {
    deed: { serviceId, teamId },
    kept: {
      talk,
      kept: { own, store },
    },
  }: {
    deed: Deed;
    kept: {
      talk: TalkRow['state'];
      kept: { own: Said; store(tx: Transaction, number: number): Promise<TalkRow> };
    };
  },
): Promise<void> {
  const { tables } = listo.db;
  const turns = await tables.talkTurns.find({ talkId: row.id }, { order: ['place'] });
  const text = transcriptOf([...turns, { isByPerson: true, said: own }], row.language);
  const title = (titleOf(talk) ?? text).slice(0, TITLE_LIMIT) || '…';
  await createTicket(
    { listo, viewer, actor },
    {
      ...{
        serviceId: serviceId ?? (await findLastResort(listo)),
        title,
        via: 'portal',
        alsoToldIds: [],
        fileIds: [],
        links: [],
      },
      answers: { what: talk.said.join('\n') || title, ...talk.fields },
    },
    {
      isLenient: true,
      after: async (tx, number) => {
        await store(tx, number);
        await writeWithin({ listo, tx, viewer }, number, {
          ...{ text, readBy: 'requester', links: [], fileIds: [] },
        });
        if (teamId === null) return;
        const ticket = await tables.tickets.findOne({ number }, tx, true);
        if (ticket && ticket.teamId !== teamId)
          await makeMove({ listo, tx }, ticket, {
            ...{ name: 'give', by: 'system', actorId: null, via: 'rule', input: { teamId } },
          });
      },
    },
  );
}

export async function rateTalk(
  listo: Listo,
  { viewer, actor, id }: { viewer: SignedIn; actor: Actor; id: string },
  rating: number,
): Promise<{ ok: true }> {
  await requireOwn(listo, viewer, id);
  return change(listo, actor, async (tx) => {
    await listo.db.tables.talks.update({ id }, { rating }, tx);
    return OK;
  });
}
