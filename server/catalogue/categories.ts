import type { Category } from '../../contract/catalogue';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import { appendSetting } from '../journal/append';
import type { Listo } from '../listo';
import { forgetCatalogue } from './services';
import type { Changing } from '../unitOfWork';

export function listCategories({ db }: Listo): Promise<Category[]> {
  return db.tables.categories.find({}, { order: ['position', 'id'] });
}

/** Whether each leads up to the top: a parent that is there, and no ring. */
function isTree(categories: Category[]): boolean {
  const parents = new Map(categories.map(({ id, parentId }) => [id, parentId]));
  return categories.every(({ id }) => {
    let at: string | null | undefined = id;
    for (let step = 0; at !== null && at !== undefined; step++) {
      if (step > categories.length) return false;
      at = parents.get(at);
    }
    return at === null;
  });
}

/** Sets the tree of subjects; services of one that is gone stand in none. */
export async function saveCategories(
  { listo, viewer, actor }: Changing,
  categories: Category[],
): Promise<{ ok: true }> {
  if (!viewer.isAdministrator) throw new ProblemError('forbidden');
  if (!isTree(categories) || new Set(categories.map(({ id }) => id)).size < categories.length)
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'categories', code: 'malformed' }] });
  return change(listo, actor, async (tx) => {
    await listo.db.run('DELETE FROM categories', {}, tx);
    await listo.db.tables.categories.insertAll(categories, tx);
    await listo.db.run(
      'UPDATE services SET categoryId = NULL WHERE categoryId NOT IN (:ids)',
      { ids: [...categories.map(({ id }) => id), ''] },
      tx,
    );
    await appendSetting({ listo, tx }, { by: viewer.id, type: 'categoriesChanged' });
    forgetCatalogue(listo);
    return OK;
  });
}
