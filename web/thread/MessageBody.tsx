import { lazy, Suspense } from 'react';
import type { FileRef } from '../../contract/files';
import type { Entry } from '../../contract/tickets';
import { FileList } from '../files/FileList';
import { openFile } from '../files/openFile';

const RichText = lazy(() => import('../words/RichText'));

type Message = NonNullable<Entry['message']>;
type Props = {
  message: Message;
  /** Where tickets open that are named in the words. */
  base: string;
  /** The ticket whose checklists the reader may work. */
  number?: number;
  /** Every file of the ticket, to look through. */
  files?: FileRef[];
};

const asTheyAre = { whiteSpace: 'pre-wrap', overflowWrap: 'anywhere' } as const;

/** Words as they were sent, with their links and files. */
export function MessageBody({ message, base, number, files = message.files }: Props) {
  const { id, text, format, links } = message;
  const isInText = (file: FileRef): boolean => format === 'rich' && text.includes(`](file:${file.id})`);
  return (
    <>
      {format === 'rich' ? (
        <Suspense fallback={<bdi style={asTheyAre}>{text}</bdi>}>
          <RichText
            {...{ text, base, ...(number !== undefined && { checks: { number, messageId: id } }) }}
            onOpen={(fileId) => openFile({ files, id: fileId })}
          />
        </Suspense>
      ) : (
        <bdi style={asTheyAre}>{text}</bdi>
      )}
      {links.map(({ url, name }) => (
        <div key={url}>
          <a href={url} rel="noreferrer noopener" target="_blank">
            {name || url}
          </a>
        </div>
      ))}
      {message.files.some((file) => !isInText(file)) && (
        <FileList files={message.files.filter((file) => !isInText(file))} all={files} />
      )}
    </>
  );
}
