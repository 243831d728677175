import { isInAudience, type Audience, type AudiencePerson } from '../catalogue';
import type { LocalText } from '../forms';

/** The states of an article, from the first draft to out of use. */
export const ARTICLE_STATES = ['draft', 'review', 'published', 'retired'] as const;
/** Where an article stands. */
export type ArticleState = (typeof ARTICLE_STATES)[number];

/** What an article says: a heading and Markdown, in each language; a language it is not written in is empty. */
export type ArticleWords = { title: LocalText; body: LocalText };

/** Who may read an article once it is published. */
export type Readership = {
  /** Everyone, also without signing in. */
  isOpen: boolean;
  /** Else those of the organisation that it is for; nothing said: all employees. */
  audience: Audience;
};

const MOVES: Record<ArticleState, ArticleState[]> = {
  draft: ['review', 'published'],
  review: ['draft', 'published'],
  published: ['review', 'retired'],
  retired: ['draft'],
};

/** What an author may do with an article: agents of its team write, those who lead it or set it up publish. */
export type Hand = 'none' | 'write' | 'publish';

/**
 * Where an article may be moved to from its state.
 * @example listMoves('draft', 'write') // ['review']
 */
export function listMoves(state: ArticleState, hand: Hand): ArticleState[] {
  if (hand === 'none') return [];
  return MOVES[state].filter((to) => hand === 'publish' || to === 'review' || to === 'draft');
}

/** Whether someone who is signed in may read a published article. */
export const mayRead = ({ isOpen, audience }: Readership, person: AudiencePerson): boolean =>
  isOpen || isInAudience(audience, person);

/**
 * Whether a service offers an article: by its labels, unless it offers all or none.
 * @param wanted the service's labels; null: any article, none at all: no article
 */
export const isOffered = (wanted: string[] | null, labels: string[]): boolean =>
  wanted === null || labels.some((label) => wanted.includes(label));

/** The words in a language, or in the other where they are not written in it. */
export const inLanguage = (words: LocalText, language: keyof LocalText): string =>
  words[language].trim() === '' ? (words.en.trim() === '' ? words.pt : words.en) : words[language];
