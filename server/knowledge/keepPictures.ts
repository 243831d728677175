import type { ArticleBody } from '../../contract/knowledge';
import { listPictures } from '../../core/knowledge';
import type { UnitOfWork } from '../unitOfWork';

/** Ties the pictures that someone put into an article to it, so that its readers see them. */
export async function keepPictures(
  { listo, tx }: UnitOfWork,
  personId: string,
  { articleId, body }: { articleId: string; body: ArticleBody['body'] },
): Promise<void> {
  const ids = Object.values(body).flatMap(listPictures);
  if (ids.length === 0) return;
  const unused = { ticketNumber: null, conversationId: null, articleId: null };
  await listo.db.tables.files.update({ id: ids, personId, ...unused }, { articleId }, tx);
}
