import { open } from 'node:fs/promises';
import path from 'node:path';
import { FILE_TYPES } from '../../contract/names';

const TEXT_ENDINGS: Record<string, string> = {
  '.txt': 'text/plain',
  '.log': 'text/plain',
  '.md': 'text/plain',
  '.csv': 'text/csv',
};
const PROBE_BYTES = 64 * 1024;

async function isText(file: string): Promise<boolean> {
  const handle = await open(file);
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(PROBE_BYTES), 0, PROBE_BYTES, 0);
    const probe = buffer.subarray(0, bytesRead);
    if (probe.includes(0)) return false;
    new TextDecoder('utf-8', { fatal: true }).decode(probe, { stream: true });
    return true;
  } catch {
    return false;
  } finally {
    await handle.close();
  }
}

/**
 * The media type of a stored file by its content, or null when it is of a kind that is not taken. Text has no
 * signature of its own, so it is taken only under a text file's ending.
 */
export async function detectType(file: string, name: string): Promise<string | null> {
  const { fileTypeFromFile } = await import('file-type');
  const detected = await fileTypeFromFile(file);
  if (detected) return detected.mime in FILE_TYPES ? detected.mime : null;
  const asText = TEXT_ENDINGS[path.extname(name).toLowerCase()];
  return asText !== undefined && (await isText(file)) ? asText : null;
}
