import { nanoid } from 'nanoid';
import type { MatterBody } from '../../contract/assistant';
import {
  LEAST_PHRASINGS,
  listConfusions,
  listDoubles,
  listSteps,
  tryOffers,
  understandMessage,
  evidenceOf,
  LEAST_PAST,
  sumFor,
} from '../../core/assistant';
import type { Language, LocalText } from '../../core/forms';
import { change, type Actor } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { forgetLearned, readLearned, WANTED_SETTING } from './learned';
import { judgePast } from './past';
import type { Changing, Viewing } from '../unitOfWork';

const WANTED_CHOICES = [0.7, 0.8, 0.9, 0.95];
const HEARD_SHOWN = 60;

/** Leads and team administrators look after what the assistant can do. */
export const mayTeach = ({ isAdministrator, teams }: SignedIn): boolean =>
  isAdministrator || teams.some(({ role }) => role !== 'agent');

export function requireTeacher(viewer: SignedIn): void {
  if (!mayTeach(viewer)) throw new ProblemError('forbidden');
}

const problem = (field: string, code: string): ProblemError =>
  new ProblemError('fieldsNotValid', { fields: [{ field, code }] });

async function refuse(listo: Listo, body: MatterBody): Promise<void> {
  if (`${body.name.en}${body.name.pt}`.trim() === '') throw problem('name', 'missing');
  if (body.isOn && body.phrasings.length < LEAST_PHRASINGS) throw problem('phrasings', 'tooFew');
  const service = await listo.db.tables.services.findOne({ id: body.serviceId });
  if (!service) throw problem('serviceId', 'notAChoice');
  for (const { step, way } of listSteps(body.steps))
    if (step.kind === 'article' && !(await listo.db.tables.articles.findOne({ id: step.articleId })))
      throw problem(`steps.${way}`, 'notAChoice');
}

const complete = ({ en, pt }: LocalText): LocalText => ({ en: en.trim() || pt, pt: pt.trim() || en });

export async function createMatter(
  { listo, viewer, actor }: Changing,
  body: MatterBody,
): Promise<{ id: string }> {
  requireTeacher(viewer);
  await refuse(listo, body);
  const answer = await change(listo, actor, async (tx) => {
    const id = nanoid(12);
    await listo.db.tables.matters.insert(
      { ...body, name: complete(body.name), id, version: 1, changedAt: listo.clock.now() },
      tx,
    );
    return { id };
  });
  forgetLearned(listo);
  return answer;
}

export async function updateMatter(
  { listo, viewer }: Viewing,
  { actor, id }: { actor: Actor; id: string },
  { version, ...body }: MatterBody & { version: number },
): Promise<{ version: number }> {
  requireTeacher(viewer);
  await refuse(listo, body);
  const answer = await change(listo, actor, async (tx) => {
    const row = await listo.db.tables.matters.findOne({ id }, tx, true);
    if (!row) throw new ProblemError('notFound');
    if (row.version !== version)
      throw new ProblemError('stale', {
        differences: [{ field: 'matter', theirs: row.name, yours: body.name, by: null }],
      });
    await listo.db.tables.matters.update(
      { id },
      { ...body, name: complete(body.name), version: version + 1, changedAt: listo.clock.now() },
      tx,
    );
    return { version: version + 1 };
  });
  forgetLearned(listo);
  return answer;
}

/** What words would be taken for now. */
export async function tryWords({ listo, viewer }: Viewing, q: string, language: Language) {
  requireTeacher(viewer);
  const { understanding, sum, matters } = await readLearned(listo, 'agents', { isNewest: true });
  const { likely, offer } = understandMessage(understanding, { text: q, language, sum });
  const nameOf = (id: string | null): string | null =>
    matters.find((matter) => matter.id === id)?.name[viewer.language] ?? null;
  return {
    ...offer,
    likely: likely.slice(0, 5).map(({ id, sureness }) => ({ name: nameOf(id), sureness })),
  };
}

/** How sure it may be, where it errs, and what it heard. */
export async function readInsight(listo: Listo, viewer: SignedIn) {
  requireTeacher(viewer);
  const { understanding, wanted, matters } = await readLearned(listo, 'agents', { isNewest: true });
  const { judged } = understanding;
  const own = viewer.teams.map(({ teamId }) => teamId);
  const all = await judgePast(listo, understanding);
  const past = all.filter(
    ({ confidentialTeamId }) => confidentialTeamId === null || own.includes(confidentialTeamId),
  );
  const evidence = evidenceOf(judged, all);
  const nameOf = (id: string): string =>
    matters.find((matter) => matter.id === id)?.name[viewer.language] ?? id;
  const heard = await listo.db.tables.heard.find(
    { state: 'new' },
    { order: [['at', 'DESC']], limit: HEARD_SHOWN },
  );
  return {
    wanted,
    choices: WANTED_CHOICES.map((choice) => {
      const sum = sumFor(evidence, choice);
      return { wanted: choice, ...tryOffers(judged, sum), past: tryOffers(past, sum) };
    }),
    pastTalks: past.length,
    leastTalks: LEAST_PAST,
    goesByTalks: evidence === all,
    confusions: listConfusions(judged)
      .slice(0, 20)
      .map(({ id, takenForId, phrasings }) => ({
        ...{ name: nameOf(id), phrasings },
        takenFor: takenForId === null ? null : nameOf(takenForId),
      })),
    doubles: listDoubles(matters).map(({ text, ids }) => ({ text, names: ids.map(nameOf) })),
    heard: heard.map(({ id, words, language, matterId, isRight, at }) => ({
      ...{ id, text: words, language, name: nameOf(matterId), isRight, at },
    })),
  };
}

export async function setWanted({ listo, viewer, actor }: Changing, wanted: number): Promise<{ ok: true }> {
  requireTeacher(viewer);
  await change(listo, actor, (tx) =>
    listo.db.tables.settings.insertAll([{ name: WANTED_SETTING, value: wanted }], tx, { updates: ['value'] }),
  );
  forgetLearned(listo);
  return OK;
}

/** A phrasing that was heard becomes one of its matter, or is left. */
export async function judgeHeard(
  { listo, viewer }: Viewing,
  { actor, id }: { actor: Actor; id: number },
  accept: boolean,
): Promise<{ ok: true }> {
  requireTeacher(viewer);
  const { tables } = listo.db;
  await change(listo, actor, async (tx) => {
    const heard = await tables.heard.findOne({ id, state: 'new' }, tx, true);
    if (!heard) throw new ProblemError('notFound');
    await tables.heard.update({ id }, { state: accept ? 'accepted' : 'refused' }, tx);
    const matter = accept ? await tables.matters.findOne({ id: heard.matterId }, tx, true) : null;
    if (!matter || matter.phrasings.some(({ text }) => text === heard.words)) return;
    await tables.matters.update(
      { id: matter.id },
      {
        phrasings: [...matter.phrasings, { text: heard.words, language: heard.language }],
        ...{ version: matter.version + 1, changedAt: listo.clock.now() },
      },
      tx,
    );
  });
  forgetLearned(listo);
  return OK;
}
