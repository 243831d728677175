import { ActionIcon, Button, VisuallyHidden } from '@mantine/core';
import { IconCamera, IconPaperclip, IconX } from '@tabler/icons-react';
import { useMutation } from '@tanstack/react-query';
import { useEffect, useId, useRef, useState } from 'react';
import { useDropzone } from 'react-dropzone';
import { api } from '../api/endpoints';
import type { FileRef } from '../../contract/files';
import { FILE_LIMIT } from '../../contract/names';
import { ApiProblem, call } from '../api/call';
import { useWords } from '../messages/useWords';
import classes from './FilesField.module.css';

type Props = { label: string; files: FileRef[]; onChange(files: FileRef[]): void; isQuiet?: boolean };

function toForm(file: File): FormData {
  const form = new FormData();
  form.append('file', file, file.name || 'picture.png');
  return form;
}

/** Files by drop, paste, camera or choice; each is sent at once and kept until the words or the form are sent. */
export function FilesField({ label, files, onChange, isQuiet = false }: Props) {
  const { t } = useWords();
  const [problem, setProblem] = useState<string | null>(null);
  const current = useRef(files);
  useEffect(() => {
    current.current = files;
  }, [files]);
  const limitsId = useId();
  const camera = useRef<HTMLInputElement>(null);
  const sending = useMutation({
    mutationFn: (file: File) => call(api.files.upload, { body: toForm(file) }),
    onSuccess: (file) => {
      current.current = [...current.current, file];
      onChange(current.current);
    },
    onError: (error, file) =>
      setProblem(`${file.name}: ${t(`problems/${error instanceof ApiProblem ? error.code : 'unexpected'}`)}`),
  });

  function add(given: File[]): void {
    setProblem(null);
    for (const file of given)
      if (file.size > FILE_LIMIT) setProblem(`${file.name}: ${t('problems/fileTooLarge')}`);
      else sending.mutate(file);
  }

  function remove(file: FileRef): void {
    onChange(files.filter(({ id }) => id !== file.id));
    void call(api.files.remove, { params: { id: file.id } }).catch(() => undefined);
  }

  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({
    onDrop: add,
    noClick: true,
    noKeyboard: true,
  });
  return (
    <div
      {...getRootProps()}
      className={isQuiet ? classes.quiet : classes.zone}
      role="group"
      aria-label={label}
      data-over={isDragActive || undefined}
      onPaste={({ clipboardData }) => clipboardData.files.length > 0 && add([...clipboardData.files])}
    >
      <input
        {...getInputProps({ style: { display: 'none' } })}
        aria-label={label}
        aria-describedby={limitsId}
      />
      <input
        {...{
          ref: camera,
          type: 'file',
          accept: 'image/*',
          capture: 'environment',
          hidden: true,
          'aria-label': t('files/take'),
        }}
        onChange={({ target }) => add([...(target.files ?? [])])}
      />
      {!isQuiet && <span>{t('files/drop')}</span>}
      <Button size="compact-xs" variant="default" leftSection={<IconPaperclip size={14} />} onClick={open}>
        {t('files/choose')}
      </Button>
      <Button
        size="compact-xs"
        variant="default"
        leftSection={<IconCamera size={14} />}
        onClick={() => camera.current?.click()}
      >
        {t('files/take')}
      </Button>
      {files.map((file) => (
        <span key={file.id} className={classes.file}>
          <bdi>{file.name}</bdi>
          <ActionIcon
            size="xs"
            variant="subtle"
            color="gray"
            aria-label={t('files/remove', { name: file.name })}
            onClick={() => remove(file)}
          >
            <IconX size={12} />
          </ActionIcon>
        </span>
      ))}
      {sending.isPending && <span>{t('files/uploading', { name: sending.variables.name })}</span>}
      {isQuiet ? (
        <VisuallyHidden id={limitsId}>{t('files/limits')}</VisuallyHidden>
      ) : (
        <span id={limitsId} className={classes.limits}>
          {t('files/limits')}
        </span>
      )}
      {problem && (
        <span role="alert" style={{ color: 'var(--brick)', width: '100%' }}>
          {problem}
        </span>
      )}
    </div>
  );
}
