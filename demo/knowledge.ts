import type { KnowledgeDoor } from '../contract/knowledge';
import type { ArticleRow, ArticleUseRow, QuestionRow } from '../server/knowledge/model';
import type { Story } from './story';
import type { PersonRow } from '../server/people/model';
import { listUnanswered } from './articles';
import type { Random } from './random';

const DAY_MS = 86_400_000;
const MINUTE_MS = 60_000;
const USED_DAYS = 60;
const OPENED = 1_800;
const ASKED = 220;
/** So many of what agents resolved lately were answered with an article. */
const SHARED = 0.18;

type Use = Omit<ArticleUseRow, 'id'>;
type Known = { random: Random; articles: ArticleRow[]; stories: Story[]; people: PersonRow[]; now: number };

/** How well each article helps those who open it: most well, a few hardly. */
function helpfulness(random: Random, articles: ArticleRow[]): Map<string, number> {
  return new Map(
    articles.map(({ id }) => [
      id,
      random.chance(0.1) ? random.between(0.1, 0.35) : random.between(0.6, 0.95),
    ]),
  );
}

/** What was opened, judged and shown over the last two months, a few articles much more than the rest. */
function createReadings({ random, articles, people, now }: Known): Use[] {
  const helps = helpfulness(random, articles);
  const open = articles.filter(({ audience }) => audience.length === 0);
  // The order in the files says nothing about how often something is asked.
  const byUse = [...open].sort(() => random.next() - 0.5);
  return Array.from({ length: OPENED }).flatMap((): Use[] => {
    const article = byUse[Math.floor(byUse.length * random.next() ** 2.2)]!;
    const at = Math.max(article.publishedAt!, now - Math.round(random.next() * USED_DAYS * DAY_MS));
    const door: KnowledgeDoor = random.chance(0.7) ? 'ask' : 'form';
    const use = { personId: random.pick(people).id, door, isInstead: false, ticketNumber: null, words: '' };
    const shown = byUse.filter((other) => other.labels[0] === article.labels[0]).slice(0, 3);
    const uses: Use[] = [...new Set([article, ...shown])].map(({ id }) => ({
      ...{ ...use, articleId: id, at: at - MINUTE_MS, what: 'shown' },
    }));
    uses.push({ ...use, articleId: article.id, at, what: 'opened' });
    if (!random.chance(0.45)) return uses;
    const helped = random.chance(helps.get(article.id)!);
    uses.push({
      ...{ ...use, articleId: article.id, at: at + 2 * MINUTE_MS, what: helped ? 'helped' : 'notHelped' },
      isInstead: helped && random.chance(0.6),
    });
    return uses;
  });
}

/** Articles that agents sent with an answer: the answer's words gain the way to it. */
function shareOnStories({ random, articles, stories, now }: Known): Use[] {
  return stories.flatMap(({ ticket, messages }): Use[] => {
    const answer = messages.find(({ isByTeam, readBy }) => isByTeam && readBy === 'requester');
    const fitting = articles.filter(
      ({ labels, audience }) => audience.length === 0 && labels.includes(ticket.serviceId),
    );
    if (!answer || fitting.length === 0 || answer.at < now - USED_DAYS * DAY_MS || !random.chance(SHARED))
      return [];
    const article = random.pick(fitting);
    if (article.publishedAt! > answer.at) return [];
    answer.format = 'rich';
    answer.text += `\n\n[${article.title.en}](/ask/articles/${article.id}?ticket=${ticket.number})`;
    return [
      {
        ...{ articleId: article.id, personId: answer.authorId, at: answer.at, what: 'shared', door: 'desk' },
        ...{ isInstead: false, ticketNumber: ticket.number, words: '' },
      },
    ];
  });
}

/** What was asked and not answered; after some of it a ticket was written, as the tickets say. */
function createQuestions({ random, stories, people, now }: Known): Omit<QuestionRow, 'id'>[] {
  const matters = listUnanswered();
  const written = stories.filter(
    ({ ticket }) => ticket.teamId === 'desk' && ticket.createdAt > now - USED_DAYS * DAY_MS,
  );
  return Array.from({ length: ASKED }, (_, i) => {
    const { language, wordings } = matters[Math.floor(matters.length * random.next() ** 1.8)]!;
    const story = random.chance(0.45) ? written[i % Math.max(1, written.length)] : undefined;
    return {
      personId: story?.ticket.requesterId ?? random.pick(people).id,
      at: story
        ? story.ticket.createdAt - 5 * MINUTE_MS
        : now - Math.round(random.next() * USED_DAYS * DAY_MS),
      ...{ language, words: random.pick(wordings), door: 'ask' as const },
      ...{ serviceId: null, found: 0, ticketNumber: null },
    };
  });
}

/** Two months of looking things up. Answers of the stories may gain a way to an article. */
export function simulateKnowledge(known: Known): { uses: Use[]; questions: Omit<QuestionRow, 'id'>[] } {
  return {
    uses: [...createReadings(known), ...shareOnStories(known)].sort((one, other) => one.at - other.at),
    questions: createQuestions(known),
  };
}
