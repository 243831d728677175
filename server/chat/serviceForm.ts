import type { ChatEvent, ToldMessage } from '../../contract/rooms';
import { listNotInChat, readValues, toChatFields, toTitle, type Listed } from '../../core/chat';
import {
  checkAnswers,
  fillIn,
  getShownFields,
  withoutFiles,
  type AnswerProblem,
  type Answers,
  type FormDefinition,
} from '../../core/forms';
import { findThings } from '../estate/choices';
import type { ServiceRow } from '../catalogue/model';
import { findService } from '../catalogue/services';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { getKnownFacts } from '../sessions/me';
import type { SignedIn } from '../sessions/viewer';
import { TITLE_LIMIT, type Hearing } from './make';
import { say } from './says';
import { seal } from './seal';
import { readChatSettings } from './settings';
import { getOwn } from '../../core/records';
import type { Viewing } from '../unitOfWork';

/** The field of the ticket's title, which no question of a form is called. */
const TITLE = '-title';

/** What the form of a service carries from one page to the next. */
export type SealedService = {
  serviceId: string;
  forId: string;
  messages: ToldMessage[];
  title: string;
  urgency: string | null;
  answers?: Answers;
  /** The questions that were shown on the page before. */
  asked?: string[];
};
type Problem = Pick<AnswerProblem, 'field' | 'code' | 'limit' | 'words'>;

/** Whether a service's own form is filled in in chat: it was chosen for that, and can be asked there. */
export async function isFilledInChat(listo: Listo, serviceId: string): Promise<boolean> {
  const { formServiceIds } = await readChatSettings(listo);
  if (!formServiceIds.includes(serviceId)) return false;
  const found = await findService(listo, serviceId);
  return found !== null && !found.isConfidential && listNotInChat(found.service.form).length === 0;
}

/** All services, with the first question, if any, for which the form cannot be filled in in chat. */
export async function listFormServices(listo: Listo) {
  const { services, teams } = listo.db.tables;
  const closed = new Set((await teams.find({ isConfidential: true })).map(({ id }) => id));
  return (await services.find({}, { order: ['position', 'id'] }))
    .filter(({ teamId }) => !closed.has(teamId))
    .map(({ id, title, form }) => ({ id, title, notInChat: listNotInChat(form)[0]?.label ?? null }));
}

async function requireService(listo: Listo, serviceId: string): Promise<ServiceRow> {
  const found = await findService(listo, serviceId);
  if (!found) throw new ProblemError('notFound');
  return found.service;
}

/** The things that can be chosen in a form: those nearest to the person. */
async function listThings(listo: Listo, personId: string, { fields }: FormDefinition): Promise<Listed> {
  const things = fields.filter(({ kind }) => kind === 'asset');
  const found = await Promise.all(
    things.map(({ assetKind }) => findThings(listo, personId, { q: '', kind: assetKind })),
  );
  return Object.fromEntries(
    things.map(({ name }, i) => [name, found[i]!.map(({ id, name: called }) => ({ id, name: called }))]),
  );
}

/** What is known before the first question: of the person, what is usual, and what they said. */
async function knownAnswers(
  { listo, viewer }: Viewing,
  form: FormDefinition,
  words: string,
): Promise<Answers> {
  const { people, sites } = listo.db.tables;
  const [person, site] = [
    await people.findOne({ id: viewer.id }),
    await sites.findOne({ id: viewer.siteId }),
  ];
  const known = fillIn(form, getKnownFacts(person!, site?.name ?? ''));
  const first = form.fields.find(({ kind }) => kind === 'longText');
  return words === '' || !first || getOwn(known, first.name) ? known : { ...known, [first.name]: words };
}

/** Opens a service's form in chat, with what is known filled in and, the next time, what was wrong beside it. */
export async function openServiceForm(
  { listo, chat, secret }: Hearing,
  viewer: SignedIn,
  { event, carried, problems = [] }: { event: ChatEvent; carried: SealedService; problems?: Problem[] },
): Promise<void> {
  const { language } = viewer;
  const { title, form } = await requireService(listo, carried.serviceId);
  const words = carried.messages.map(({ text }) => text).join('\n');
  const answers = carried.answers ?? (await knownAnswers({ listo, viewer }, form, words));
  const listed = await listThings(listo, viewer.id, form);
  const wrong = new Map(
    problems.map(({ field, code, limit, words: own }) => [
      field,
      own?.[language] ?? say(code, language, { limit: String(limit ?? '') }),
    ]),
  );
  const fields = [
    {
      ...{ name: TITLE, label: say('title', language), kind: 'line' as const, needed: true },
      value: carried.title || toTitle(words) || title[language],
    },
    ...toChatFields(form, answers, language, listed),
  ].map((field) => {
    const error = wrong.get(field.name) ?? wrong.get(field.name.replace(/\.from$/, ''));
    return error === undefined ? field : { ...field, error };
  });
  const asked = getShownFields(form, answers).map(({ name }) => name);
  const sealed = seal(secret, { ...carried, answers, asked } satisfies SealedService);
  await chat.openForm({
    roomId: event.roomId,
    personId: event.byId!,
    form: {
      ...{ title: title[language], fields, callback: { do: 'service', sealed } },
      submit: say(form.fields.some(({ shownWhen }) => shownWhen) ? 'formNext' : 'formSubmit', language),
    },
  });
}

/** What was filled in: complete answers, or what is wrong or still to be asked. */
export async function readServiceForm(
  { listo }: Hearing,
  viewer: SignedIn,
  { carried, values }: { carried: SealedService; values: Record<string, string> },
): Promise<{ answers: Answers; title: string } | { carried: SealedService; problems: Problem[] }> {
  const service = await requireService(listo, carried.serviceId);
  const form = withoutFiles(service.form);
  const listed = await listThings(listo, viewer.id, form);
  const answers = { ...carried.answers, ...readValues(form, values, listed) };
  const asked = new Set(carried.asked);
  const checked = checkAnswers(form, answers);
  const problems: Problem[] = checked.problems.filter(({ field }) => asked.has(field));
  const title = getOwn(values, TITLE) ?? carried.title;
  if (title.trim() === '') problems.push({ field: TITLE, code: 'missing' });
  if (title.length > TITLE_LIMIT) problems.push({ field: TITLE, code: 'tooLong', limit: TITLE_LIMIT });
  const isMore = getShownFields(form, answers).some(
    ({ name, kind }) => kind !== 'heading' && !asked.has(name),
  );
  if (problems.length === 0 && !isMore) return { answers: checked.answers, title };
  return { carried: { ...carried, answers, title }, problems };
}
