import type { Router } from 'express';
import { nanoid } from 'nanoid';
import { rm } from 'node:fs/promises';
import { api } from '../../contract';
import { FILE_LIMIT } from '../../contract/names';
import { mayReadInConversation } from '../conversations/files';
import { ProblemError } from '../http/problems';
import { mayReadInArticle } from '../knowledge/pictures';
import { OK, serve } from '../http/serve';
import type { Listo } from '../listo';
import { requireTicket } from '../tickets/guard';
import { detectType } from './content';
import { cleanName } from './names';
import { refuseOverQuota } from './unsent';
import { receiveFile } from './receive';
import type { FileStore } from './store';

/** Shown in the browser; everything else is offered for saving. */
const SHOWN_TYPES = new Set(['image/png', 'image/jpeg', 'image/gif', 'image/webp', 'application/pdf']);

export function fileRoutes(router: Router, listo: Listo, store: FileStore): void {
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
    const { viewer } = request;
    const file = await tables.files.findOne({ id: request.params.id });
    const isOfArticle = file !== null && (await mayReadInArticle(listo, viewer, file));
    if (!viewer && !isOfArticle) throw new ProblemError('notSignedIn');
    if (!file) throw new ProblemError('notFound');
    if (viewer && !isOfArticle && !(await mayReadInConversation(listo, viewer, file))) {
      const isOwn = file.personId === viewer.id && file.conversationId === null && file.articleId === null;
      if (file.ticketNumber === null && !isOwn) throw new ProblemError('notFound');
      if (file.ticketNumber !== null) {
        const message =
          file.messageId === null ? null : await tables.messages.findOne({ id: file.messageId });
        await requireTicket(
          listo,
          viewer,
          file.ticketNumber,
          message?.readBy === 'team' ? 'readNotes' : 'read',
        );
      }
    }
    const disposition = SHOWN_TYPES.has(file.type) ? 'inline' : 'attachment';
    response.set({ 'Content-Type': file.type, 'Cache-Control': 'private, max-age=3600' });
    response.set('Content-Disposition', `${disposition}; filename*=UTF-8''${encodeURIComponent(file.name)}`);
    response.sendFile(store.pathOf(file.id), { dotfiles: 'allow' });
  });
}
