import { Button, Checkbox, Textarea } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import {
  useEffect,
  useRef,
  useState,
  type ChangeEvent,
  type ComponentType,
  type ReactNode,
  type RefObject,
} from 'react';
import { api } from '../api/endpoints';
import type { FileRef } from '../../contract/files';
import { call } from '../api/call';
import { useRenew } from '../api/queries';
import { useDraft } from '../api/useDraft';
import { sayWriting } from '../api/writing';
import { useUpload } from '../files/useUpload';
import { useWords } from '../messages/useWords';
import classes from './Composer.module.css';
import { FilesField } from './FilesField';
import { ProblemNote } from '../ui/ProblemNote';
import { useProblems } from '../ui/useProblems';

type Input = RefObject<HTMLTextAreaElement | null>;

/** What a field for words is given; `onFiles` sends what was pasted and says what to write in its place. */
export type FieldProps = {
  number: number;
  readBy: 'requester' | 'team';
  inputRef: Input;
  placeholder: string;
  'aria-label': string;
  error: string | undefined;
  value: string;
  onChange(event: ChangeEvent<HTMLTextAreaElement>): void;
  onFiles(files: File[], put: (words: string) => void): void;
};

function PlainField({ number: _, readBy: __, onFiles, inputRef, ...rest }: FieldProps) {
  return (
    <Textarea
      {...{ autosize: true, minRows: 2, maxRows: 10, ref: inputRef, ...rest }}
      onPaste={({ clipboardData }) =>
        clipboardData.files.length > 0 && onFiles([...clipboardData.files], () => undefined)
      }
    />
  );
}

type Draft = { text: string; files: FileRef[]; key: string };
type Props = {
  number: number;
  readBy: 'requester' | 'team';
  label: string;
  placeholder: string;
  sendLabel: string;
  inputRef?: Input;
  /** A room in which others would read it, too, where that is chosen. */
  room?: string | null;
  /** The field for words with formatting; else they are plain. */
  rich?: ComponentType<FieldProps>;
  /** What stands at its foot, given what is written and a way to put text in. */
  tools?: (written: string, insert: (text: string) => void) => ReactNode;
};

/** Words and files for a ticket. What is written is kept until it has been sent, and it is sent once. */
export function Composer({
  number,
  readBy,
  label,
  placeholder,
  sendLabel,
  inputRef,
  room = null,
  rich,
  tools,
}: Props) {
  const { t } = useWords();
  const renew = useRenew();
  const own = useRef<HTMLTextAreaElement>(null);
  const Field = rich ?? PlainField;
  const [draft, setDraft, clear] = useDraft<Draft>(`message:${number}`, { text: '', files: [], key: '' });
  // Chosen anew for each message: who reads along is easily forgotten.
  const [isPublic, setPublic] = useState(false);
  const isForRoom = room !== null && isPublic && readBy === 'requester';
  const sending = useMutation({
    mutationFn: ({ text, files, key, isPublic }: Draft & { isPublic: boolean }) =>
      call(api.tickets.write, {
        params: { number },
        body: { text, readBy, isPublic, format: rich ? 'rich' : 'plain', fileIds: files.map(({ id }) => id) },
        key,
      }),
    onSuccess() {
      clear();
      setPublic(false);
    },
    onSettled: () => renew(number),
  });
  const problems = useProblems()(sending.error);
  // Files arrive while words are typed: each change builds on the last, not on what was shown.
  const latest = useRef(draft);
  useEffect(() => {
    latest.current = draft;
  });
  function change(part: (last: Draft) => Partial<Draft>): void {
    latest.current = { ...latest.current, ...part(latest.current), key: '' };
    setDraft(latest.current);
  }
  const upload = useUpload((file) => change(({ files }) => ({ files: [...files, file] })));
  function send(): void {
    if (draft.text.trim() === '' || sending.isPending) return;
    // The key changes with the words: the same words sent again after a failure are the same message.
    const key = draft.key || nanoid();
    setDraft({ ...draft, key });
    sending.mutate({ ...draft, key, isPublic: isForRoom });
  }
  return (
    <form
      className={classes.box}
      onSubmit={(event) => {
        event.preventDefault();
        send();
      }}
      onKeyDown={(event) => {
        if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) send();
      }}
    >
      <Field
        {...{ number, readBy, placeholder, 'aria-label': label, error: problems.text, value: draft.text }}
        inputRef={inputRef ?? own}
        onChange={({ target }) => {
          change(() => ({ text: target.value }));
          if (target.value !== '') sayWriting(number, readBy);
        }}
        onFiles={(files, put) =>
          upload.add(
            files,
            ({ id, name, type }) => type.startsWith('image/') && put(`![${name}](file:${id})`),
          )
        }
      />
      {upload.underWay && (
        <span className={classes.quiet}>{t('files/uploading', { name: upload.underWay })}</span>
      )}
      {upload.problem && (
        <span role="alert" style={{ color: 'var(--brick)' }}>
          {upload.problem}
        </span>
      )}
      {room !== null && readBy === 'requester' && (
        <Checkbox
          size="xs"
          checked={isPublic}
          onChange={({ currentTarget }) => setPublic(currentTarget.checked)}
          label={isPublic ? t('page/everyoneReads', { room }) : t('page/alsoInRoom', { room })}
          {...(isPublic && { styles: { label: { color: 'var(--brick)', fontWeight: 600 } } })}
        />
      )}
      {sending.error && !problems.text && <ProblemNote error={sending.error} />}
      <div className={classes.foot}>
        <FilesField
          isQuiet
          label={label}
          files={draft.files}
          onChange={(files) => change(() => ({ files }))}
        />
        {tools?.(draft.text, (words) =>
          change(({ text }) => ({ text: text.trim() === '' ? words : `${text}\n${words}` })),
        )}
        {draft.text !== '' && <span className={classes.quiet}>{t('page/draftKept')}</span>}
        <Button type="submit" loading={sending.isPending} disabled={draft.text.trim() === ''}>
          {sendLabel}
        </Button>
      </div>
    </form>
  );
}
