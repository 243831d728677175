import type { TalkInput } from '../../contract/assistant';
import type { ArticleUseRow } from '../knowledge/model';
import { forgetEarlierWord } from '../knowledge/uses';
import type { Said, TalkRow } from './model';
import type { UnitOfWork } from '../unitOfWork';

const articleIdsOf = ({ say, articles = [] }: Said, kind: string): string[] =>
  say === kind ? articles.map(({ id }) => id) : [];

/**
 * Counts what became of articles in a conversation: those of which passages stood there were shown, one that was read
 * out was opened, and whether the one that was asked about was it. One that was it spared a ticket.
 */
export async function keepArticleUses(
  { listo, tx }: UnitOfWork,
  { id: talkId, personId, places }: TalkRow,
  { input, shown }: { input: TalkInput; shown: Said[] },
): Promise<void> {
  const { db, clock } = listo;
  const use = (articleId: string, what: ArticleUseRow['what'], isInstead = false) => ({
    ...{ articleId, personId, at: clock.now(), what, door: 'assistant' as const, isInstead, words: '' },
  });
  const uses = [
    ...shown.flatMap((said) => articleIdsOf(said, 'passages')).map((id) => use(id, 'shown')),
    ...shown.flatMap((said) => articleIdsOf(said, 'article')).map((id) => use(id, 'opened')),
  ];
  const asked =
    input.kind === 'helped' ? await db.tables.talkTurns.findOne({ talkId, place: places - 1 }, tx) : null;
  if (asked && input.kind === 'helped') {
    const ids = [...articleIdsOf(asked.said, 'article'), ...articleIdsOf(asked.said, 'passages')];
    // Of several passages nobody says which it was.
    const [articleId] = ids;
    if (articleId !== undefined && ids.length === 1) {
      await forgetEarlierWord({ listo, tx }, { personId, articleId });
      uses.push(use(articleId, input.helped ? 'helped' : 'notHelped', input.helped));
    }
  }
  if (uses.length > 0) await db.tables.articleUses.insertAll(uses, tx);
}
