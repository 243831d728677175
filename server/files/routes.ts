import type { Router } from 'express';
import { nanoid } from 'nanoid';
import { rm } from 'node:fs/promises';
import { api } from '../../contract';
import { FILE_LIMIT } from '../../contract/names';
import { ProblemError } from '../http/problems';
import { OK, serve } from '../http/serve';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import type { FileRow } from './model';
import { detectType } from './content';
import { cleanName } from './names';
import { refuseOverQuota } from './unsent';
import { receiveFile } from './receive';
import type { FileStore } from './store';

/** Shown in the browser; everything else is offered for saving. */
const SHOWN_TYPES = new Set(['image/png', 'image/jpeg', 'image/gif', 'image/webp', 'application/pdf']);

/** Refuses a file to whom it is not for, by where it was sent; null: there is none. */
export type FileGuard = (
  listo: Listo,
  viewer: SignedIn | undefined,
  file: FileRow | null,
) => Promise<FileRow>;

export function fileRoutes(
  router: Router,
  listo: Listo,
  { store, guard }: { store: FileStore; guard: FileGuard },
): void {
  const { files } = api;
  const { tables } = listo.db;
  router.post(files.upload.path, receiveFile(store, { most: FILE_LIMIT, tooLarge: 'fileTooLarge' }));

  serve(router, files.upload, async ({ request, viewer }) => {
    const arrived = request.file;
    if (!arrived) throw new ProblemError('uploadBrokenOff');
    try {
      if (arrived.size === 0) throw new ProblemError('fileEmpty');
      await refuseOverQuota(listo, viewer.id, arrived.size);
      const type = await detectType(arrived.path, arrived.originalname);
      if (type === null) throw new ProblemError('fileTypeNotAllowed');
      const id = nanoid();
      const name = cleanName(arrived.originalname, type);
      await store.keep(arrived.path, id);
      await tables.files.insert({
        id,
        personId: viewer.id,
        name,
        type,
        size: arrived.size,
        at: listo.clock.now(),
      });
      return { id, name, type, size: arrived.size };
    } finally {
      await rm(arrived.path, { force: true });
    }
  });

  serve(router, files.remove, async ({ viewer, params }) => {
    const file = await tables.files.findOne({ id: params.id, personId: viewer.id });
    if (!file) throw new ProblemError('notFound');
    const unsent = { ticketNumber: null, conversationId: null, articleId: null };
    // What was sent belongs to where it was sent.
    if ((await tables.files.remove({ id: params.id, personId: viewer.id, ...unsent })) === 0)
      throw new ProblemError('fileSent');
    await store.remove(params.id);
    return OK;
  });

  router.get('/files/:id', async (request, response) => {
    const file = await guard(listo, request.viewer, await tables.files.findOne({ id: request.params.id }));
    const disposition = SHOWN_TYPES.has(file.type) ? 'inline' : 'attachment';
    response.set({ 'Content-Type': file.type, 'Cache-Control': 'private, max-age=3600' });
    response.set('Content-Disposition', `${disposition}; filename*=UTF-8''${encodeURIComponent(file.name)}`);
    response.sendFile(store.pathOf(file.id), { dotfiles: 'allow' });
  });
}
