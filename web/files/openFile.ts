import type { FileRef } from '../../contract/files';

/** A file to look at, among those that are looked through with it. */
export type Opened = { files: FileRef[]; id: string };

let listener: ((opened: Opened) => void) | null = null;

/** Shows a file in place. */
export const openFile = (opened: Opened): void => listener?.(opened);

/** The one place that shows them. */
export function onOpenFile(hear: (opened: Opened) => void): () => void {
  listener = hear;
  return () => {
    if (listener === hear) listener = null;
  };
}
