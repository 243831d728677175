import type { ToldMessage } from '../../contract/rooms';
import { toTitle, type ChatField, type ChatForm } from '../../core/chat';
import type { Language } from '../../core/forms';
import { inLanguage } from '../../core/knowledge';
import { isAgent } from '../../core/rights';
import { RATINGS, URGENCIES } from '../../core/tickets';
import { listServices } from '../catalogue/services';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import type { TicketRecord } from '../tickets/model';
import { guessService } from './guess';
import type { Hearing } from './make';
import { findByChatId } from './identities';
import { say } from './says';
import { seal } from './seal';
import { readChatSettings } from './settings';
import { getOwn } from '../../core/records';
import type { Viewing } from '../unitOfWork';

const URGENCY_WORDS: Record<(typeof URGENCIES)[number], Record<Language, string>> = {
  stopsWork: { en: 'work has stopped', pt: 'o trabalho parou' },
  slowsWork: { en: 'work is slower', pt: 'o trabalho anda devagar' },
  canWait: { en: 'it can wait', pt: 'pode esperar' },
};

export const urgencyChoices = (language: Language) =>
  URGENCIES.map((value) => ({ value, label: URGENCY_WORDS[value][language] }));

async function teamChoices(listo: Listo, language: Language) {
  const teams = await listo.db.tables.teams.find({}, { order: ['id'] });
  return teams
    .filter(({ isConfidential }) => !isConfidential)
    .map(({ id, name }) => ({ value: id, label: inLanguage(name, language) }));
}

/** Teams, and each one's groups below it: a group's value is the team's and its own. */
async function groupChoices(listo: Listo, language: Language) {
  const groups = await listo.db.tables.groups.find({}, { order: ['name'] });
  return (await teamChoices(listo, language)).flatMap((team) => [
    team,
    ...groups
      .filter(({ teamId }) => teamId === team.value)
      .map(({ id, name }) => ({ value: `${team.value}/${id}`, label: `${team.label} · ${name}` })),
  ]);
}

async function memberChoices(listo: Listo, teamIds: string[]) {
  if (teamIds.length === 0) return [];
  const rows = await listo.db.select<{ id: string; name: string }>(
    'SELECT DISTINCT p.id, p.name FROM team_members m JOIN people p ON p.id = m.personId WHERE m.teamId IN (:teamIds) AND p.leftAt IS NULL ORDER BY p.name',
    { teamIds },
  );
  return rows.map(({ id, name }) => ({ value: id, label: name }));
}

/** What the form of a ticket carries: the messages, and for whom it was opened. */
export type SealedTicket = { messages: ToldMessage[]; forId: string };

/** Those who said something, each once, in the order in which they began. */
async function findWriters(
  listo: Listo,
  chat: Hearing['chat'],
  messages: ToldMessage[],
): Promise<{ id: string; name: string }[]> {
  const writers: { id: string; name: string }[] = [];
  for (const byId of new Set(messages.map((message) => message.byId))) {
    const writer = byId === null ? null : await findByChatId(listo, chat, byId);
    if (writer) writers.push(writer);
  }
  return writers;
}

/** The form in which a ticket is made of messages: guessed from their words, with how sure that is; all can be corrected. */
export async function ticketForm(
  { listo, chat, secret }: Hearing,
  viewer: SignedIn,
  { messages, title }: { messages: ToldMessage[]; title: string },
): Promise<ChatForm> {
  const { language } = viewer;
  const { fields, name, presets } = await readChatSettings(listo);
  const agent = isAgent(viewer);
  const words = messages.map(({ text }) => text).join('\n');
  const writers = agent ? await findWriters(listo, chat, messages) : [];
  // Whoever began it, and is not the one who writes it down, has the need.
  const requester = writers.find(({ id }) => id !== viewer.id) ?? viewer;
  const guess = await guessService(listo, viewer, words);
  const isGuessed = guess.isFound || presets.service === null;
  const serviceId = isGuessed ? guess.serviceId : presets.service!;
  const services = await listServices(listo, requester.id);
  const none = { value: '', label: '–' };
  const all: Record<string, ChatField | null> = {
    requester: agent
      ? {
          ...{ name: 'requester', label: say('requester', language), kind: 'choice', value: requester.id },
          choices: [...writers.filter(({ id }) => id !== viewer.id), viewer].map(({ id, name: who }) => ({
            value: id,
            label: who,
          })),
        }
      : null,
    service: {
      ...{ name: 'service', label: say('service', language), kind: 'choice', value: serviceId },
      choices: services.map(({ id, title, kind }) => ({
        value: id,
        label: `${title[language]} · ${say(kind, language)}`,
      })),
      note:
        guess.sureness === null
          ? say('guessed', language)
          : say('sure', language, { percent: String(Math.round(guess.sureness * 100)) }),
    },
    team: agent
      ? {
          ...{ name: 'team', label: say('teamGroup', language), kind: 'choice', value: presets.team ?? '' },
          choices: [
            { value: '', label: say('teamOfService', language) },
            ...(await groupChoices(listo, language)),
          ],
        }
      : null,
    assignee: agent
      ? {
          ...{ name: 'assignee', label: say('assignee', language), kind: 'choice', value: '' },
          choices: [
            none,
            ...(await memberChoices(
              listo,
              viewer.teams.map(({ teamId }) => teamId),
            )),
          ],
        }
      : null,
    urgency: {
      ...{
        name: 'urgency',
        label: say('priority', language),
        kind: 'choice',
        value: presets.urgency ?? 'slowsWork',
      },
      choices: urgencyChoices(language),
    },
  };
  return {
    title: name[language],
    fields: [
      {
        name: 'title',
        label: say('title', language),
        kind: 'line',
        value: toTitle(title || words),
        needed: true,
      },
      ...fields.flatMap((field) => getOwn(all, field) ?? []),
    ],
    submit: say('formSubmit', language),
    callback: { do: 'ticket', sealed: seal(secret, { messages, forId: viewer.id } satisfies SealedTicket) },
  };
}

/** The form that an action on a card opens; null where it needs none. */
export async function actionForm(
  { listo, viewer: { language } }: Viewing,
  action: string,
  ticket: TicketRecord,
): Promise<ChatForm | null> {
  const form = (fields: ChatField[], named: Parameters<typeof say>[0]): ChatForm => ({
    title: `${ticket.number} · ${say(named, language).replace(' …', '')}`,
    ...{ fields, submit: say('formSubmit', language), callback: { do: action, number: ticket.number } },
  });
  const words = (label: Parameters<typeof say>[0], name: string): ChatField => ({
    ...{ name, label: say(label, language), kind: 'text', value: '', needed: true },
  });
  switch (action) {
    case 'write':
    case 'note':
      return form(
        [
          {
            ...{ name: 'readBy', label: say('readBy', language), kind: 'choice' },
            // As on the Desk: who asked reads it only where that is chosen.
            value: 'team',
            choices: [
              { value: 'requester', label: say('toRequester', language) },
              { value: 'team', label: say('toTeam', language) },
            ],
          },
          words('words', 'text'),
        ],
        'write',
      );
    case 'give':
      return form(
        [
          {
            ...{ name: 'team', label: say('team', language), kind: 'choice', value: ticket.teamId },
            choices: await teamChoices(listo, language),
          },
          {
            ...{ name: 'assignee', label: say('assignee', language), kind: 'choice', value: '' },
            choices: [{ value: '', label: '–' }, ...(await memberChoices(listo, [ticket.teamId]))],
          },
          { ...words('reason', 'reason'), needed: false },
        ],
        'give',
      );
    case 'finish':
      return form([words('solution', 'solution')], 'finish');
    case 'confirm':
      return form(
        [
          {
            ...{ name: 'rating', label: say('rating', language), kind: 'choice', value: '' },
            choices: [
              { value: '', label: '–' },
              ...RATINGS.map((rating) => ({
                value: String(rating),
                label: say(`rating${rating}`, language),
              })),
            ],
          },
          { ...words('ratingWord', 'ratingWord'), needed: false },
        ],
        'confirmForm',
      );
    case 'reopen':
      return form([words('stillBroken', 'stillBroken')], 'reopen');
    case 'decline':
      return form([words('reason', 'words')], 'decline');
    case 'urgency':
      return form(
        [
          {
            ...{ name: 'urgency', label: say('priority', language), kind: 'choice', value: ticket.urgency },
            choices: urgencyChoices(language),
          },
        ],
        'urgency',
      );
    default:
      return null;
  }
}
