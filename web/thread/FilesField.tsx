import { ActionIcon, Button, VisuallyHidden } from '@mantine/core';
import { IconCamera, IconPaperclip, IconX } from '@tabler/icons-react';
import { useEffect, useId, useRef } from 'react';
import { useDropzone } from 'react-dropzone';
import { api } from '../api/endpoints';
import type { FileRef } from '../../contract/files';
import { call } from '../api/call';
import { useWords } from '../messages/useWords';
import { useUpload } from '../files/useUpload';
import classes from './FilesField.module.css';

type Props = { label: string; files: FileRef[]; onChange(files: FileRef[]): void; isQuiet?: boolean };

/** Files by drop, paste, camera or choice; each is sent at once and kept until the words or the form are sent. */
export function FilesField({ label, files, onChange, isQuiet = false }: Props) {
  const { t } = useWords();
  const current = useRef(files);
  useEffect(() => {
    current.current = files;
  }, [files]);
  const limitsId = useId();
  const camera = useRef<HTMLInputElement>(null);
  const upload = useUpload((file) => {
    current.current = [...current.current, file];
    onChange(current.current);
  });

  function remove(file: FileRef): void {
    onChange(files.filter(({ id }) => id !== file.id));
    void call(api.files.remove, { params: { id: file.id } }).catch(() => undefined);
  }

  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({
    onDrop: (given) => upload.add(given),
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
      onPaste={({ clipboardData }) => clipboardData.files.length > 0 && upload.add([...clipboardData.files])}
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
        onChange={({ target }) => upload.add([...(target.files ?? [])])}
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
      {upload.underWay && <span>{t('files/uploading', { name: upload.underWay })}</span>}
      {isQuiet ? (
        <VisuallyHidden id={limitsId}>{t('files/limits')}</VisuallyHidden>
      ) : (
        <span id={limitsId} className={classes.limits}>
          {t('files/limits')}
        </span>
      )}
      {upload.problem && (
        <span role="alert" style={{ color: 'var(--brick)', width: '100%' }}>
          {upload.problem}
        </span>
      )}
    </div>
  );
}
