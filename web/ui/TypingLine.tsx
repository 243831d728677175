import { Button, Textarea } from '@mantine/core';
import { useRef, type DragEvent } from 'react';
import classes from './TypingLine.module.css';

type Props = {
  label: string;
  text: string;
  onText(text: string): void;
  canSend: boolean;
  onSend(): void;
  onFiles(files: File[]): void;
  /** The names of what will be sent along, or what went wrong with it. */
  note: string;
  problem: string | null;
  words: { attach: string; send: string };
  /** Read by a part of those who are here. */
  isBeside?: boolean;
};

/** Where one types what is said at once: Enter sends, with Shift it begins a line; files by choice, paste and drop. */
export function TypingLine({
  label,
  text,
  onText,
  canSend,
  onSend,
  onFiles,
  note,
  problem,
  words,
  isBeside,
}: Props) {
  const chooser = useRef<HTMLInputElement>(null);
  const send = (): void => {
    if (canSend) onSend();
  };
  return (
    <form
      className={classes.line}
      data-beside={isBeside}
      onSubmit={(event) => {
        event.preventDefault();
        send();
      }}
      onDrop={(event: DragEvent) => {
        event.preventDefault();
        onFiles([...event.dataTransfer.files]);
      }}
      onDragOver={(event) => event.preventDefault()}
    >
      <Textarea
        autosize
        minRows={1}
        maxRows={8}
        aria-label={label}
        placeholder={label}
        value={text}
        onChange={({ target }) => onText(target.value)}
        onPaste={({ clipboardData }) => onFiles([...clipboardData.files])}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' || event.shiftKey || event.nativeEvent.isComposing) return;
          event.preventDefault();
          send();
        }}
      />
      <input
        ref={chooser}
        type="file"
        multiple
        hidden
        onChange={({ target }) => {
          onFiles([...(target.files ?? [])]);
          target.value = '';
        }}
      />
      <Button variant="subtle" size="compact-sm" onClick={() => chooser.current?.click()}>
        {words.attach}
      </Button>
      <Button type="submit" size="compact-sm" disabled={!canSend}>
        {words.send}
      </Button>
      {note !== '' && <p>{note}</p>}
      {problem !== null && <p role="alert">{problem}</p>}
    </form>
  );
}
