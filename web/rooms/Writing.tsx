import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { FILE_LIMIT } from '../../contract/names';
import { useDraft } from '../api/useDraft';
import { useWords } from '../messages/useWords';
import { TypingLine } from '../ui/TypingLine';
import { callRooms, sendFile } from './callRooms';

type Props = { roomId: string; threadId: string | null; label: string };
type Sent = { text: string; fileIds: string[]; key: string };

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
  );
}
