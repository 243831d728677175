import type { FileRef } from '../../contract/files';
import { openFile } from './openFile';
import { isPicture, isShown } from './shown';

type Props = { files: FileRef[]; all?: FileRef[] };

/** Files by name, pictures small; what can be shown opens in place, the rest is saved. */
export function FileList({ files, all = files }: Props) {
  return (
    <div style={{ marginTop: 4, display: 'flex', flexWrap: 'wrap', gap: '6px 12px', alignItems: 'center' }}>
      {files.map((file) => (
        <a
          key={file.id}
          href={`/api/v1/files/${file.id}`}
          target="_blank"
          rel="noreferrer"
          onClick={(event) => {
            if (event.ctrlKey || event.metaKey || !isShown(file)) return;
            event.preventDefault();
            openFile({ files: all, id: file.id });
          }}
        >
          {isPicture(file) && (
            <img
              src={`/api/v1/files/${file.id}`}
              alt=""
              loading="lazy"
              style={{ display: 'block', height: 56, borderRadius: 4, border: '1px solid var(--hairline)' }}
            />
          )}
          <bdi>{file.name}</bdi>
        </a>
      ))}
    </div>
  );
}
