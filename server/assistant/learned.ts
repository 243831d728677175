import { Worker } from 'node:worker_threads';
import { evidenceOf, sumFor, type Understanding } from '../../core/assistant';
import type { Database } from '../database/database';
import { readSynonyms } from '../knowledge/synonyms';
import { toGroups, type SynonymSetting } from '../knowledge/library';
import type { Listo } from '../listo';
import type { MatterRow } from './model';
import { judgePast } from './past';
import type { ToLearn } from './worker';

/** What is understood by whom: agents have matters of their own. */
export type Learned = { matters: MatterRow[]; understanding: Understanding; wanted: number; sum: number };
export type Hearers = 'employees' | 'agents';

export const WANTED_SETTING = 'wantedSureness';
const USUALLY_WANTED = 0.9;
const FRESH_MS = 1_000;
/** Conversations go on: how far the offers may go is judged anew every so often. */
const JUDGED_MS = 10 * 60_000;

type Kept = {
  stamp: string;
  learned: Promise<Record<Hearers, Learned>>;
  /** What was learned last, and answers while the next is being learned; null: nothing yet. */
  settled: Record<Hearers, Learned> | null;
  readAt: number;
  judgedAt: number;
};
const kept = new WeakMap<Database, Kept>();

/** Learning takes long enough to hold up pages: it has a thread of its own. */
function learnInThread(task: ToLearn): Promise<Understanding> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL('./thread.mjs', import.meta.url), { workerData: task, execArgv: [] });
    // Learning keeps no process from ending.
    worker.unref();
    worker.once('message', (understanding: Understanding) => resolve(understanding));
    worker.once('error', reject);
    worker.once('exit', () => reject(new Error('the thread ended without an answer')));
  });
}

async function findSum(listo: Listo, understanding: Understanding, wanted: number): Promise<number> {
  return sumFor(evidenceOf(understanding.judged, await judgePast(listo, understanding)), wanted);
}

async function judgeAnew(listo: Listo, known: Kept): Promise<void> {
  known.judgedAt = performance.now();
  const { employees, agents } = await known.learned;
  for (const learned of new Set([employees, agents]))
    learned.sum = await findSum(listo, learned.understanding, learned.wanted);
}

async function learnAll(
  listo: Listo,
  { all, words, wanted }: { all: MatterRow[]; words: SynonymSetting; wanted: number },
): Promise<Record<Hearers, Learned>> {
  const synonyms = { en: toGroups(words.en), pt: toGroups(words.pt) };
  const learnFor = async (matters: MatterRow[]): Promise<Learned> => {
    const understanding = await learnInThread({
      matters: matters.map(({ id, phrasings }) => ({ id, phrasings })),
      synonyms,
    });
    return { matters, understanding, wanted, sum: await findSum(listo, understanding, wanted) };
  };
  const forAll = all.filter(({ isForAgents }) => !isForAgents);
  const ofEmployees = learnFor(forAll);
  const [employees, agents] = await Promise.all([
    ofEmployees,
    forAll.length === all.length ? ofEmployees : learnFor(all),
  ]);
  return { employees, agents };
}

/** What is answered from: what was learned last, or the newest, which may take a moment to be learned. */
async function answerFrom({ settled, learned }: Kept, isNewest: boolean): Promise<Record<Hearers, Learned>> {
  return isNewest ? learned : (settled ?? learned);
}

/**
 * What has been learned of the matters. A change is learned beside what was learned before, which answers until then;
 * whoever changes matters asks for the newest.
 */
export async function readLearned(
  listo: Listo,
  hearers: Hearers,
  { isNewest = false } = {},
): Promise<Learned> {
  const { tables, select } = listo.db;
  const before = kept.get(listo.db);
  if (before && performance.now() - before.readAt < FRESH_MS)
    return (await answerFrom(before, isNewest))[hearers];
  const [stamp] = await select<{ stamp: string }>(
    `SELECT CONCAT(COUNT(*), ' ', COALESCE(MAX(changedAt), 0), ' ', COALESCE(SUM(version), 0)) AS stamp FROM matters`,
  );
  const setting = await tables.settings.findOne({ name: WANTED_SETTING });
  const wanted = (setting?.value as number | undefined) ?? USUALLY_WANTED;
  const words = await readSynonyms(listo);
  const now = `${stamp!.stamp} ${words.version} ${wanted}`;
  if (before?.stamp === now) {
    before.readAt = performance.now();
    if (before.readAt - before.judgedAt > JUDGED_MS)
      judgeAnew(listo, before).catch((error: unknown) =>
        listo.log.error({ err: error }, 'conversations were not judged'),
      );
    return (await answerFrom(before, isNewest))[hearers];
  }
  const matters = await tables.matters.find({ isOn: true }, { order: ['id'] });
  const learned = learnAll(listo, { all: matters, words, wanted });
  const at = performance.now();
  const next: Kept = { stamp: now, learned, settled: before?.settled ?? null, readAt: at, judgedAt: at };
  kept.set(listo.db, next);
  learned
    .then((settled) => (next.settled = settled))
    .catch((error: unknown) => {
      listo.log.error({ err: error }, 'the matters were not learned');
      // What was learned before goes on answering, and it is tried again; a later try is not undone by this one.
      if (kept.get(listo.db) !== next) return;
      if (before?.settled) kept.set(listo.db, before);
      else kept.delete(listo.db);
    });
  return (await answerFrom(next, isNewest))[hearers];
}

/** Has this process learn what has just been changed here. */
export function forgetLearned({ db }: Listo): void {
  const known = kept.get(db);
  if (known) known.readAt = -Infinity;
}
