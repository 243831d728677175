import { readFileSync } from 'node:fs';
import type { Place } from '../contract/names';
import type { LocalText } from '../core/forms';
import type { ArticleRow, ArticleVersionRow } from '../server/knowledge/model';
import type { MemberRow } from '../server/people/model';
import type { Random } from './random';

const DAY_MS = 86_400_000;
const FOLDER = new URL('./articles/', import.meta.url);
/** The files, each with where its articles belong. */
const FILES: Record<string, Place> = {
  gate: 'gate',
  board: 'onBoard',
  desk: 'desk',
  building: 'building',
  me: 'me',
  joining: 'joining',
  things: 'things',
  money: 'money',
};

const read = (name: string): string => readFileSync(new URL(name, FOLDER), 'utf8');

type Words = { title: string; otherWords: string; body: string };

/** A heading, a line of other words that may be missing, and Markdown. */
function toWords(text: string): Words {
  const [heading = '', ...rest] = text.trim().split('\n');
  const hasOther = rest[0]?.startsWith('? ') ?? false;
  return {
    title: heading.replace(/^# /, ''),
    otherWords: hasOther ? rest[0]!.slice(2) : '',
    body: rest
      .slice(hasOther ? 1 : 0)
      .join('\n')
      .trim(),
  };
}

export type Readers = 'open' | 'everyone' | 'employees' | 'agents';

/** The demo's articles, published over the last year, some of them due for a review. */
export function createArticles(
  random: Random,
  members: MemberRow[],
  now: number,
): { articles: ArticleRow[]; versions: ArticleVersionRow[] } {
  const articles = Object.entries(FILES).flatMap(([file, place]) =>
    read(`${file}.md`)
      .split(/^=== /m)
      .slice(1)
      .map((text): ArticleRow => {
        const [head = '', ...lines] = text.split('\n');
        const [id = '', teamId = '', labels = '', readers] = head.split('|').map((part) => part.trim());
        const [en, pt] = lines
          .join('\n')
          .split(/^--- pt$/m)
          .map(toWords);
        const both = (part: keyof Words): LocalText => ({ en: en![part], pt: pt?.[part] ?? '' });
        const words = { title: both('title'), body: both('body'), otherWords: both('otherWords') };
        const publishedAt = now - Math.round(random.between(20, 360)) * DAY_MS;
        return {
          ...words,
          ...{ id, teamId, place, labels: labels.split(','), published: words },
          ownerId: members.find((member) => member.teamId === teamId && member.role === 'lead')!.personId,
          state: 'published',
          isOpen: readers === 'open' || readers === 'everyone',
          audience: readers === 'agents' ? [{ by: 'agent' }] : [],
          reviewAt: publishedAt + 340 * DAY_MS,
          ...{ version: 1, publishedVersion: 1, publishedAt, fromTicket: null },
          ...{ createdAt: publishedAt - DAY_MS, changedAt: publishedAt },
        };
      }),
  );
  const versions = articles.map(({ id, title, body, publishedAt, ownerId }) => ({
    ...{ articleId: id, version: 1, at: publishedAt!, byId: ownerId, title, body },
  }));
  return { articles, versions };
}

/** Words that stand for the same at Solvarra, a line for each group. */
export const SYNONYMS = {
  en: [
    'kiosk, ticket machine, vending terminal',
    'gate, turnstile, barrier',
    'scanner, reader',
    'season pass, year ticket, commuter card',
    'wifi, wireless, wlan, internet',
    'laptop, computer, notebook',
    'badge, access card, key card',
    'roster, shift, schedule, rota',
    'expenses, refund, reimbursement',
    'vessel, ship, boat, ferry',
    'telephone, phone, mobile',
  ].join('\n'),
  pt: [
    'quiosque, máquina',
    'porta, torniquete, cancela',
    'cartão, passe',
    'portátil, computador',
    'navio, barco, ferry',
    'escala, turno, horário',
  ].join('\n'),
  version: 1,
};

/** What people asked and found nothing on: a line for each matter, its wordings after its language. */
export const listUnanswered = (): { language: 'en' | 'pt'; wordings: string[] }[] =>
  read('unanswered.txt')
    .trim()
    .split('\n')
    .map((line) => {
      const [language, ...wordings] = line.split('|');
      return { language: language as 'en' | 'pt', wordings };
    });
