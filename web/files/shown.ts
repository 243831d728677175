import type { FileRef } from '../../contract/files';

const PICTURES = new Set(['image/png', 'image/jpeg', 'image/gif', 'image/webp']);
const WORDS = new Set(['text/plain', 'text/csv']);

export const isPicture = ({ type }: FileRef): boolean => PICTURES.has(type);
export const isText = ({ type }: FileRef): boolean => WORDS.has(type);
export const isPdf = ({ type }: FileRef): boolean => type === 'application/pdf';

/** Whether a file can be looked at here, or only saved. */
export const isShown = (file: FileRef): boolean => isPicture(file) || isText(file) || isPdf(file);
