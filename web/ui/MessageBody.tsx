import type { Entry } from '../../contract/tickets';

/** Words as they were sent, with their links and files. */
export function MessageBody({ message }: { message: NonNullable<Entry['message']> }) {
  return (
    <>
      <bdi style={{ whiteSpace: 'pre-wrap', overflowWrap: 'anywhere' }}>{message.text}</bdi>
      {message.links.map(({ url, name }) => (
        <div key={url}>
          <a href={url} rel="noreferrer noopener" target="_blank">
            {name || url}
          </a>
        </div>
      ))}
      {message.files.length > 0 && <FileList files={message.files} />}
    </>
  );
}

export function FileList({ files }: { files: { id: string; name: string }[] }) {
  return (
    <div style={{ marginTop: 4 }}>
      {files.map(({ id, name }) => (
        <a
          key={id}
          href={`/api/v1/files/${id}`}
          target="_blank"
          rel="noreferrer"
          style={{ marginInlineEnd: 12 }}
        >
          <bdi>{name}</bdi>
        </a>
      ))}
    </div>
  );
}
