import type { FileRow } from '../files/model';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { readArticle, readDraft } from './read';

/** Whether someone may see a picture by the article in which it stands: as it is published, or as it is being written. */
export async function mayReadInArticle(
  listo: Listo,
  viewer: SignedIn | undefined,
  { articleId }: Pick<FileRow, 'articleId'>,
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
  if (await reads(() => readArticle(listo, viewer, articleId))) return true;
  return viewer !== undefined && reads(() => readDraft(listo, viewer, articleId));
}
