import type { api } from '../../contract';
import type { AnswerOf } from '../../contract/endpoint';
import { dayEdges } from '../../core/figures';
import { readZone } from '../worklists/reader';
import type { ArticleUseRow } from './model';
import { readDraft } from './read';
import type { Viewing } from '../unitOfWork';

const WORDS_SHOWN = 50;
type DayCounts = Omit<AnswerOf<typeof api.knowledge.use>['days'][number], 'from'>;
type Use = Pick<ArticleUseRow, 'at' | 'what'> & { isInstead: boolean | number; isDone: number };

function countsOf(uses: Use[]): DayCounts {
  const count = (holds: (use: Use) => boolean): number => uses.filter(holds).length;
  return {
    opened: count(({ what }) => what === 'opened'),
    helped: count(({ what }) => what === 'helped'),
    notHelped: count(({ what }) => what === 'notHelped'),
    deflected: count(({ what, isInstead }) => what === 'helped' && Boolean(isInstead)),
    shared: count(({ what }) => what === 'shared'),
    doneWith: count(({ what, isDone }) => what === 'shared' && isDone === 1),
  };
}

/** How an article was used, day by day in the reader's zone, and what people said of it, the last first. */
export async function readUse({ listo, viewer }: Viewing, articleId: string, days: number) {
  await readDraft(listo, viewer, articleId);
  const edges = dayEdges(listo.clock.now(), await readZone(listo, viewer), days);
  const uses = await listo.db.select<Use>(
    `SELECT u.at, u.what, u.isInstead, t.state IS NOT NULL AND t.state IN ('done', 'closed') AS isDone
     FROM article_uses u LEFT JOIN tickets t ON t.number = u.ticketNumber
     WHERE u.articleId = :articleId AND u.what <> 'shown' AND u.at >= :since ORDER BY u.at`,
    { articleId, since: edges[0] },
  );
  const words = await listo.db.select<Pick<ArticleUseRow, 'at' | 'what' | 'door' | 'words'>>(
    `SELECT at, what, door, words FROM article_uses
     WHERE articleId = :articleId AND what IN ('helped', 'notHelped') AND words <> '' ORDER BY at DESC LIMIT ${WORDS_SHOWN}`,
    { articleId },
  );
  return {
    days: edges.slice(0, -1).map((from, i) => ({
      from,
      ...countsOf(uses.filter(({ at }) => at >= from && at < edges[i + 1]!)),
    })),
    words: words.map(({ what, ...rest }) => ({ ...rest, helped: what === 'helped' })),
  };
}
