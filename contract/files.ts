import * as z from 'zod';
import { endpoint } from './endpoint';
import { paths } from './paths';
import { idParams, idSchema, okSchema } from './shared';

/** A file that was sent; its size in bytes. */
export const fileSchema = z.object({
  id: idSchema,
  name: z.string(),
  type: z.string(),
  size: z.number().int(),
});
/** A file that was sent; its size in bytes. */
export type FileRef = z.infer<typeof fileSchema>;

/** Calls about files. */
export const fileEndpoints = {
  /** The body is multipart/form-data with one part named `file`. */
  upload: endpoint({
    ...paths.files.upload,
    summary: 'Keep a file, to be sent with words or a form',
    answer: fileSchema,
  }),
  remove: endpoint({
    ...paths.files.remove,
    summary: 'Throw away a file not sent yet',
    params: idParams,
    answer: okSchema,
  }),
};
