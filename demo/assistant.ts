import { readFileSync } from 'node:fs';
import type { AssistantWords } from '../contract/assistant';
import type { Learned, MatterStep } from '../core/assistant';
import type { LocalText } from '../core/forms';
import type { MatterRow } from '../server/assistant/model';
import { say, startTalk } from '../server/assistant/talks';
import type { Listo } from '../server/listo';
import type { PersonRow } from '../server/people/model';
import type { TicketRecord } from '../server/tickets/model';
import type { Random } from './random';

/** A matter of the demo's assistant: where its tickets go, what it is called, how people put it. */
export type DemoMatter = Learned & { serviceId: string; name: LocalText };

/** The matters that the demo's assistant begins with. */
export function readMatters(): DemoMatter[] {
  const matters: DemoMatter[] = [];
  for (const line of readFileSync(new URL('./assistant/matters.txt', import.meta.url), 'utf8')
    .trim()
    .split('\n'))
    if (line.startsWith('# ')) {
      const [id = '', serviceId = '', en = '', pt = ''] = line.slice(2).split(' | ');
      matters.push({ id, serviceId, name: { en, pt }, phrasings: [] });
    } else {
      const isPt = line.startsWith('pt: ');
      matters.at(-1)!.phrasings.push({ text: isPt ? line.slice(4) : line, language: isPt ? 'pt' : 'en' });
    }
  return matters;
}

const t = (en: string, pt: string): LocalText => ({ en, pt });

/** What the assistant shows first on a matter; those without one lead to the form. */
const ARTICLES: Record<string, string> = {
  ...{
    'season-pass': 'season-pass-unknown',
    'scanner-dead': 'gate-scanner-read',
    turnstile: 'turnstile-stuck',
  },
  ...{ 'gate-display': 'gate-screen-old-sailing', 'kiosk-payment': 'kiosk-frozen-payment' },
  ...{ 'kiosk-paper': 'kiosk-paper', 'double-charge': 'kiosk-refund', 'sea-link': 'link-drops-cape' },
  ...{ 'crew-wifi': 'wifi-join', 'bridge-tablet': 'bridge-tablet-black', 'charts-old': 'chart-update' },
  ...{ radio: 'vhf-handheld', 'passenger-count': 'gate-counts-wrong', password: 'password-forgotten' },
  ...{ locked: 'account-locked', 'second-factor': 'new-telephone-code', 'mail-full': 'mailbox-full' },
  ...{ phishing: 'phishing', printing: 'printer-offline', scanning: 'scan-to-mail' },
  ...{ 'laptop-slow': 'laptop-slow', 'lost-device': 'laptop-stolen', remote: 'vpn-outside' },
  ...{ 'roster-wrong': 'roster-wrong', 'roster-swap': 'roster-swap', report: 'report-figures' },
  ...{ leave: 'parental-leave', pay: 'payslip-read', badge: 'badge-lost', heating: 'heating-cold' },
  ...{ expenses: 'expenses-how', invoice: 'invoice-wrong' },
};

/** What is asked before, where the answer belongs into the form. */
const QUESTIONS: Record<string, MatterStep> = {
  'kiosk-payment': {
    ...{ kind: 'ask', field: 'kiosk', choices: [] },
    text: t('Which kiosk is it? Its number is on its side.', 'Que quiosque é? O número está de lado.'),
  },
  'kiosk-paper': {
    kind: 'ask',
    field: 'kiosk',
    choices: [],
    text: t('Which kiosk is it?', 'Que quiosque é?'),
  },
};

/** The assistant's matters with how each is dealt with. */
export const createMatters = (now: number): MatterRow[] =>
  readMatters().map(({ id, serviceId, name, phrasings }): MatterRow => {
    const articleId = ARTICLES[id];
    const question = QUESTIONS[id];
    return {
      ...{ id, serviceId, name, phrasings, note: '', question: t('', '') },
      ...{ isForAgents: false, isOn: true, version: 1, changedAt: now },
      steps: [
        ...(question ? [question] : []),
        ...(articleId ? [{ kind: 'article' as const, articleId }] : []),
        id === 'lost-device' ? { kind: 'person' } : { kind: articleId ? 'ticket' : 'form' },
      ],
    };
  });

/** What the assistant greets with; the rest it says in its usual words. */
export const ASSISTANT_WORDS: AssistantWords = {
  ...{
    greeting: t('', ''),
    handOver: t('', ''),
    thanks: t('', ''),
    followUp: t('', ''),
    isOn: true,
    closing: t('', ''),
    version: 1,
  },
  greetsWith: [
    { kind: 'article', id: 'password-forgotten' },
    { kind: 'article', id: 'wifi-join' },
    { kind: 'article', id: 'roster-wrong' },
    { kind: 'service', id: 'room' },
    { kind: 'service', id: 'expenses' },
  ],
};

const DAY_MS = 86_400_000;
const TALKS = 70;
const DAYS = 28;

/** Conversations of the last weeks, held with the assistant as it is. */
export async function simulateTalks(
  listo: Listo,
  random: Random,
  { people, tickets }: { people: PersonRow[]; tickets: TicketRecord[] },
): Promise<void> {
  const matters = readMatters();
  const now = listo.clock.now();
  const { talks, talkTurns } = listo.db.tables;
  for (let i = 0; i < TALKS; i++) {
    const matter = matters[Math.floor(matters.length * random.next() ** 1.6)]!;
    const handed = random.chance(0.3)
      ? tickets.find(
          (ticket) =>
            ticket.serviceId === matter.serviceId && ticket.createdAt > now - DAYS * DAY_MS * random.next(),
        )
      : undefined;
    const person = people.find(({ id }) => id === handed?.requesterId) ?? random.pick(people);
    let at = handed ? handed.createdAt - 90_000 : now - Math.round(random.next() * DAYS * DAY_MS);
    const then: Listo = { ...listo, wake: () => undefined, clock: { now: () => (at += 20_000) } };
    const viewer = {
      ...{ id: person.id, name: person.name, siteId: person.siteId, language: 'en' as const, sessionId: '' },
      ...{ isAdministrator: false, mayAskForOthers: false, teams: [] },
    };
    const by = (id: string) => ({ viewer, actor: { id: person.id }, id });
    let talk = await startTalk({ listo: then, viewer, actor: { id: person.id } }, true);
    const phrasing = random.pick(matter.phrasings.filter(({ language }) => language === 'en')).text;
    talk = await say(then, by(talk.id), {
      input: {
        kind: 'words',
        text: `${random.pick(['', 'hello, ', 'please, '])}${phrasing}`,
      },
    });
    if (talk.phase === 'confirm' || talk.phase === 'choose')
      talk = await say(then, by(talk.id), { input: { kind: 'pick', id: matter.id } });
    if (talk.turns.at(-1)!.say === 'question')
      talk = await say(then, by(talk.id), { input: { kind: 'words', text: '3' } });
    if (handed) {
      const place = talk.turns.length;
      const said = { say: 'ticket', number: handed.number, isHandOver: true };
      await talkTurns.insert({ talkId: talk.id, place, at, isByPerson: false, said, likely: null });
      const outcome = { endedAt: at, outcome: 'handedOver', ticketNumber: handed.number } as const;
      await talks.update({ id: talk.id }, { ...outcome, places: place + 1 });
    } else if (talk.turns.at(-1)!.say === 'article' && random.chance(0.7))
      talk = await say(then, by(talk.id), { input: { kind: 'helped', helped: true } });
    else await talks.update({ id: talk.id, endedAt: null }, { endedAt: at, outcome: 'left' });
    if (random.chance(0.5)) await talks.update({ id: talk.id }, { rating: random.chance(0.75) ? 5 : 3 });
  }
}
