import { nanoid } from 'nanoid';
import { writeFile, rm } from 'node:fs/promises';
import path from 'node:path';
import { FILE_LIMIT } from '../../contract/names';
import { detectType } from '../files/content';
import { cleanName } from '../files/names';
import type { FileStore } from '../files/store';
import type { Listo } from '../listo';

/** Files that came with a mail, kept as if its sender had uploaded them; those of other kinds are named. */
export async function keepAttachments(
  listo: Listo,
  store: FileStore,
  {
    personId,
    attachments,
  }: { personId: string; attachments: { filename?: string | undefined; content: Buffer; size: number }[] },
): Promise<{ fileIds: string[]; left: string[] }> {
  const fileIds: string[] = [];
  const left: string[] = [];
  for (const { filename, content, size } of attachments) {
    const id = nanoid();
    const given = filename ?? '';
    const arrived = path.join(store.arriving, id);
    await writeFile(arrived, content);
    try {
      const type = size > 0 && size <= FILE_LIMIT ? await detectType(arrived, given) : null;
      if (type === null) {
        left.push(given || 'file');
        continue;
      }
      const name = cleanName(given, type);
      await store.keep(arrived, id);
      await listo.db.tables.files.insert({ id, personId, name, type, size, at: listo.clock.now() });
      fileIds.push(id);
    } finally {
      await rm(arrived, { force: true });
    }
  }
  return { fileIds, left };
}
