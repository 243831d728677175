import { Button } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { FILE_LIMIT } from '../../contract/names';
import { useDraft } from '../api/useDraft';
import { useWords } from '../messages/useWords';
import { TypingLine } from '../ui/TypingLine';
import { callRooms, sendFile } from './callRooms';
import classes from './Rooms.module.css';
import { useRoomPeople } from './useRooms';

const MOST_CALLED = 5;

type Props = { roomId: string; threadId: string | null; label: string };
type Sent = { text: string; fileIds: string[]; key: string };

const BEGUN = /(?:^|\s)@([\p{L}\p{N}_-]*)$/u;

/** Who could be meant by a call that is being typed at the end of the words. */
function Calling({ begun, onCall }: { begun: string; onCall(handle: string): void }) {
  const { t } = useWords();
  const { data: found = [] } = useRoomPeople(begun);
  return (
    <div role="group" aria-label={t('rooms/whoCalled')} className={classes.call}>
      {found.slice(0, MOST_CALLED).map(({ id, name, handle }) => (
        <Button key={id} size="compact-xs" variant="default" onClick={() => onCall(handle)}>
          {name}&nbsp;<small>@{handle}</small>
        </Button>
      ))}
    </div>
  );
}

/** The typing line of a room or a thread; what was not sent stays. */
export function Writing({ roomId, threadId, label }: Props) {
  const { t } = useWords();
  const [text, setText, clear] = useDraft(`room:${roomId}:${threadId ?? ''}`, '');
  const [files, setFiles] = useState<{ id: string; name: string }[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const sending = useMutation({
    mutationFn: ({ text: words, fileIds, key }: Sent) =>
      callRooms('POST', `/rooms/${roomId}/messages`, { text: words, threadId, fileIds, key }),
    onSuccess: () => {
      clear();
      setFiles([]);
    },
  });
  const begun = BEGUN.exec(text)?.[1];
  const add = (given: File[]): void => {
    setProblem(null);
    for (const file of given)
      if (file.size > FILE_LIMIT) setProblem(`${file.name}: ${t('problems/fileTooLarge')}`);
      else
        sendFile(file).then(
          (kept) => setFiles((before) => [...before, kept]),
          () => setProblem(`${file.name}: ${t('problems/uploadBrokenOff')}`),
        );
  };
  return (
    <>
      {begun !== undefined && (
        <Calling
          begun={begun}
          onCall={(handle) => setText(`${text.slice(0, text.length - begun.length)}${handle} `)}
        />
      )}
      <TypingLine
        {...{ label, text }}
        onText={setText}
        canSend={(text.trim() !== '' || files.length > 0) && !sending.isPending}
        onSend={() => sending.mutate({ text, fileIds: files.map(({ id }) => id), key: nanoid() })}
        onFiles={add}
        note={files.map(({ name }) => name).join(', ')}
        problem={problem ?? (sending.error ? t('rooms/notSent') : null)}
        words={{ attach: t('rooms/attach'), send: t('rooms/send') }}
      />
    </>
  );
}
