import { Button, Textarea } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import type { ReactNode, Ref } from 'react';
import { api } from '../api/endpoints';
import type { FileRef } from '../../contract/files';
import { call } from '../api/call';
import { useRenew } from '../api/queries';
import { useDraft } from '../api/useDraft';
import { useWords } from '../messages/useWords';
import classes from './Composer.module.css';
import { FilesField } from './FilesField';
import { ProblemNote } from './ProblemNote';
import { useProblems } from './useProblems';

type Draft = { text: string; files: FileRef[]; key: string };
type Props = {
  number: number;
  readBy: 'requester' | 'team';
  label: string;
  placeholder: string;
  sendLabel: string;
  inputRef?: Ref<HTMLTextAreaElement>;
  /** What stands at its foot, given what is written and a way to put text in. */
  tools?: (written: string, insert: (text: string) => void) => ReactNode;
};

/** Words and files for a ticket. What is written is kept until it has been sent, and it is sent once. */
export function Composer({ number, readBy, label, placeholder, sendLabel, inputRef, tools }: Props) {
  const { t } = useWords();
  const renew = useRenew();
  const [draft, setDraft, clear] = useDraft<Draft>(`message:${number}`, { text: '', files: [], key: '' });
  const sending = useMutation({
    mutationFn: ({ text, files, key }: Draft) =>
      call(api.tickets.write, {
        params: { number },
        body: { text, readBy, fileIds: files.map(({ id }) => id) },
        key,
      }),
    onSuccess: clear,
    onSettled: () => renew(number),
  });
  const problems = useProblems()(sending.error);
  function send(): void {
    if (draft.text.trim() === '' || sending.isPending) return;
    // The key changes with the words: the same words sent again after a failure are the same message.
    const key = draft.key || nanoid();
    setDraft({ ...draft, key });
    sending.mutate({ ...draft, key });
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
      <Textarea
        {...{
          autosize: true,
          minRows: 2,
          maxRows: 10,
          placeholder,
          'aria-label': label,
          error: problems.text,
          ...(inputRef && { ref: inputRef }),
        }}
        value={draft.text}
        onChange={({ target }) => setDraft({ ...draft, text: target.value, key: '' })}
      />
      {sending.error && !problems.text && <ProblemNote error={sending.error} />}
      <div className={classes.foot}>
        <FilesField
          isQuiet
          label={label}
          files={draft.files}
          onChange={(files) => setDraft({ ...draft, files, key: '' })}
        />
        {tools?.(draft.text, (text) =>
          setDraft({ ...draft, text: draft.text.trim() === '' ? text : `${draft.text}\n${text}`, key: '' }),
        )}
        {draft.text !== '' && <span className={classes.quiet}>{t('page/draftKept')}</span>}
        <Button type="submit" loading={sending.isPending} disabled={draft.text.trim() === ''}>
          {sendLabel}
        </Button>
      </div>
    </form>
  );
}
