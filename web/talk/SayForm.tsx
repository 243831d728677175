import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useRef, useState } from 'react';
import type { FileRef } from '../../contract/files';
import { ApiProblem, call } from '../api/call';
import { api } from '../api/endpoints';
import { useUpload } from '../files/useUpload';
import '../messages/talkWords';
import { useWords } from '../messages/useWords';
import { TypingLine } from '../ui/TypingLine';

type Props = {
  id: string;
  readBy?: 'all' | 'agents';
  label: string;
  text: string;
  onText(text: string): void;
};
const SAY_WRITING_MS = 2_500;

/** The typing line of a conversation; what was not sent stays, and that one writes is said. */
export function SayForm({ id, readBy = 'all', label, text, onText }: Props) {
  const { t } = useWords();
  const [files, setFiles] = useState<FileRef[]>([]);
  const toldAt = useRef(0);
  const upload = useUpload((file) => setFiles((before) => [...before, file]));
  const sending = useMutation({
    mutationFn: ({ words, key }: { words: string; key: string }) =>
      call(api.conversations.say, {
        params: { id },
        body: { text: words, readBy, fileIds: files.map((file) => file.id) },
        key,
      }),
    onSuccess: () => {
      onText('');
      setFiles([]);
    },
  });
  function noteWriting(): void {
    if (performance.now() - toldAt.current < SAY_WRITING_MS) return;
    toldAt.current = performance.now();
    void call(api.conversations.writing, { params: { id }, body: { readBy } }).catch(() => undefined);
  }
  const { error } = sending;
  return (
    <TypingLine
      {...{ label, text }}
      isBeside={readBy === 'agents'}
      onText={(words) => {
        onText(words);
        noteWriting();
      }}
      canSend={(text.trim() !== '' || files.length > 0) && !sending.isPending}
      onSend={() => sending.mutate({ words: text, key: nanoid() })}
      onFiles={upload.add}
      note={files.map(({ name }) => name).join(', ')}
      problem={
        upload.problem ??
        (error ? t(`problems/${error instanceof ApiProblem ? error.code : 'unexpected'}`) : null)
      }
      words={{ attach: t('talk/attach'), send: t('talk/send') }}
    />
  );
}
