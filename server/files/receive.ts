import type { RequestHandler } from 'express';
import multer, { MulterError } from 'multer';
import { ProblemError, type ProblemName } from '../http/problems';
import type { FileStore } from './store';

/** Takes in the one file of a multipart body, as far as a limit in bytes; `request.file` is then where it arrived. */
export function receiveFile(
  store: FileStore,
  { most, tooLarge }: { most: number; tooLarge: ProblemName },
): RequestHandler {
  const upload = multer({
    dest: store.arriving,
    limits: { fileSize: most, files: 1 },
    defParamCharset: 'utf8',
  }).single('file');
  return (request, response, next) => {
    if (!request.viewer) throw new ProblemError('notSignedIn');
    void upload(request, response, (error: unknown) => {
      if (error instanceof MulterError && error.code === 'LIMIT_FILE_SIZE') next(new ProblemError(tooLarge));
      else if (error) next(new ProblemError('uploadBrokenOff'));
      else next();
    });
  };
}
