import { lazy, Suspense, useEffect, useState } from 'react';
import { onOpenFile, type Opened } from './openFile';

const FileView = lazy(() => import('./FileView'));

/** Where files are shown; it comes when the first one is opened. */
export function FileDialog() {
  const [opened, setOpened] = useState<Opened | null>(null);
  useEffect(() => onOpenFile(setOpened), []);
  if (!opened) return null;
  return (
    <Suspense>
      <FileView {...opened} onChoose={(id) => setOpened({ ...opened, id })} onClose={() => setOpened(null)} />
    </Suspense>
  );
}
