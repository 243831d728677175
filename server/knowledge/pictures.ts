import { listPictures } from '../../core/knowledge';
import type { FileRow } from '../files/model';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { readArticle, readDraft } from './read';

/** Whether someone may see a picture by the article in which it stands: as it is published, or as it is being written. */
export async function mayReadInArticle(
  listo: Listo,
  viewer: SignedIn | undefined,
  { id, articleId }: Pick<FileRow, 'id' | 'articleId'>,
): Promise<boolean> {
  if (articleId === null) return false;
  const reads = async (read: () => Promise<unknown>): Promise<boolean> =>
    read().then(
      () => true,
      (error: unknown) => {
        if (error instanceof ProblemError) return false;
        throw error;
      },
    );
  // Who reads the article sees what is published of it; a draft's pictures are for those who write it.
  const published = (await listo.db.tables.articles.findOne({ id: articleId }))?.published;
  const isPublished = Object.values(published?.body ?? {})
    .flatMap(listPictures)
    .includes(id);
  if (isPublished && (await reads(() => readArticle(listo, viewer, { id: articleId })))) return true;
  return viewer !== undefined && reads(() => readDraft(listo, viewer, articleId));
}
