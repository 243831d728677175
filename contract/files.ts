import { z } from 'zod';
import { endpoint } from './endpoint';
import { idParams, idSchema, okSchema } from './shared';

/** The most bytes a file may have. */
export const FILE_LIMIT = 25 * 1024 * 1024;

/** What may be sent, by content: media type and the ending it is stored with. */
export const FILE_TYPES: Record<string, string> = {
  'image/png': 'png',
  'image/jpeg': 'jpg',
  'image/gif': 'gif',
  'image/webp': 'webp',
  'image/heic': 'heic',
  'application/pdf': 'pdf',
  'text/plain': 'txt',
  'text/csv': 'csv',
  'application/zip': 'zip',
  'application/vnd.openxmlformats-officedocument.wordprocessingml.document': 'docx',
  'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet': 'xlsx',
  'application/vnd.oasis.opendocument.text': 'odt',
  'application/vnd.oasis.opendocument.spreadsheet': 'ods',
  'video/mp4': 'mp4',
};

export const fileSchema = z.object({
  id: idSchema,
  name: z.string(),
  type: z.string(),
  size: z.number().int(),
});
export type FileRef = z.infer<typeof fileSchema>;

export const fileEndpoints = {
  /** The body is multipart/form-data with one part named `file`. */
  upload: endpoint({
    method: 'post',
    path: '/files',
    summary: 'Keep a file, to be sent with words or a form',
    answer: fileSchema,
  }),
  remove: endpoint({
    method: 'delete',
    path: '/files/:id',
    summary: 'Throw away a file not sent yet',
    params: idParams,
    answer: okSchema,
  }),
};
