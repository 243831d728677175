import type { Sequelize } from 'sequelize';
import type { KnowledgeDoor } from '../../contract/knowledge';
import type { Place } from '../../contract/names';
import type { LocalText } from '../../core/forms';
import type { Audience } from '../../core/catalogue';
import type { ArticleState, ArticleWords } from '../../core/knowledge';
import { autoNumber, flag, id, instant, integer, json, Table, text } from '../database/table';

/** What readers are given; what is being written stands beside it. */
export type PublishedWords = ArticleWords & { otherWords: LocalText };

export type ArticleRow = PublishedWords & {
  id: string;
  teamId: string;
  ownerId: string;
  state: ArticleState;
  place: Place;
  labels: string[];
  isOpen: boolean;
  audience: Audience;
  reviewAt: number | null;
  published: PublishedWords | null;
  version: number;
  /** How often it has been published. */
  publishedVersion: number;
  publishedAt: number | null;
  /** The ticket whose solution it was written from. */
  fromTicket: number | null;
  createdAt: number;
  changedAt: number;
};

export type ArticleVersionRow = ArticleWords & {
  articleId: string;
  version: number;
  at: number;
  byId: string | null;
};

export type ArticleUse = 'shown' | 'opened' | 'helped' | 'notHelped' | 'shared';

/** Something that was done with an article; `isInstead`: a request that was being written was given up for it. */
export type ArticleUseRow = {
  id: number;
  articleId: string;
  personId: string;
  at: number;
  what: ArticleUse;
  door: KnowledgeDoor;
  isInstead: boolean;
  ticketNumber: number | null;
  words: string;
};

/** Something that was asked, and how many articles were found for it. */
export type QuestionRow = {
  id: number;
  personId: string;
  at: number;
  language: 'en' | 'pt';
  words: string;
  door: KnowledgeDoor;
  serviceId: string | null;
  found: number;
  /** The ticket of which an agent said that there is no article on it. */
  ticketNumber: number | null;
};

export function createKnowledgeTables(sequelize: Sequelize) {
  return {
    articles: new Table<ArticleRow>(sequelize, 'articles', {
      ...{ id, teamId: id, ownerId: id, state: text(12), place: text(20), labels: json, isOpen: flag },
      ...{ audience: json, reviewAt: instant, title: json, body: json, otherWords: json, published: json },
      ...{ version: integer, publishedVersion: integer, publishedAt: instant, fromTicket: integer },
      ...{ createdAt: instant, changedAt: instant },
    }),
    articleVersions: new Table<ArticleVersionRow>(
      sequelize,
      'article_versions',
      { articleId: id, version: integer, at: instant, byId: id, title: json, body: json },
      ['articleId', 'version'],
    ),
    articleUses: new Table<ArticleUseRow>(sequelize, 'article_uses', {
      ...{ id: autoNumber, articleId: id, personId: id, at: instant, what: text(12), door: text(12) },
      ...{ isInstead: flag, ticketNumber: integer, words: text(1000) },
    }),
    questions: new Table<QuestionRow>(sequelize, 'questions_asked', {
      ...{ id: autoNumber, personId: id, at: instant, language: text(2), words: text(500), door: text(12) },
      ...{ serviceId: id, found: integer, ticketNumber: integer },
    }),
  };
}
