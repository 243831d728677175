import { ActionIcon, Button, Group, Modal, NavLink } from '@mantine/core';
import { IconChevronLeft, IconChevronRight, IconDownload } from '@tabler/icons-react';
import { useQuery } from '@tanstack/react-query';
import type { FileRef } from '../../contract/files';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { Waiting } from '../ui/Waiting';
import '../words/wordsWords';
import type { Opened } from './openFile';
import { isPdf, isPicture, isText } from './shown';

const MOST_LETTERS = 200_000;

function TextOf({ file }: { file: FileRef }) {
  const { data, error } = useQuery({
    queryKey: ['fileText', file.id],
    queryFn: async () => {
      const response = await fetch(`/api/v1/files/${file.id}`);
      if (!response.ok) throw new Error(`${response.status}`);
      return (await response.text()).slice(0, MOST_LETTERS);
    },
  });
  if (error) return <ProblemNote error={error} />;
  if (data === undefined) return <Waiting />;
  return (
    <pre style={{ whiteSpace: 'pre-wrap', overflowWrap: 'anywhere', margin: 0 }} tabIndex={0}>
      {data}
    </pre>
  );
}

function Content({ file }: { file: FileRef }) {
  const { t } = useWords();
  const address = `/api/v1/files/${file.id}`;
  if (isPicture(file))
    return <img src={address} alt={file.name} style={{ maxWidth: '100%', maxHeight: '68vh' }} />;
  if (isPdf(file))
    return <iframe src={address} title={file.name} style={{ width: '100%', height: '68vh', border: 0 }} />;
  return isText(file) ? <TextOf file={file} /> : <p>{t('words/cannotShow')}</p>;
}

/** Looks through files: their list at the left, one of them at the right. */
export default function FileView({
  files,
  id,
  onChoose,
  onClose,
}: Opened & { onChoose: (id: string) => void; onClose: () => void }) {
  const { t } = useWords();
  const at = Math.max(
    0,
    files.findIndex((file) => file.id === id),
  );
  const file = files[at];
  const step = (by: number) => onChoose(files[(at + by + files.length) % files.length]!.id);
  return (
    <Modal
      opened={!!file}
      onClose={onClose}
      size="min(1100px, 94vw)"
      title={<bdi>{file?.name}</bdi>}
      onKeyDown={({ key }) => {
        if (key === 'ArrowRight') step(1);
        if (key === 'ArrowLeft') step(-1);
      }}
    >
      {file && (
        <div style={{ display: 'flex', gap: 16 }}>
          {files.length > 1 && (
            <nav aria-label={t('words/allFiles')} style={{ width: 220, flex: 'none' }}>
              {files.map((each) => (
                <NavLink
                  key={each.id}
                  component="button"
                  active={each.id === file.id}
                  label={<bdi>{each.name}</bdi>}
                  description={t('words/kilobytes', { size: Math.ceil(each.size / 1000) })}
                  onClick={() => onChoose(each.id)}
                />
              ))}
            </nav>
          )}
          <div style={{ flex: 1, minWidth: 0 }}>
            <Group justify="space-between" mb={8}>
              <Group gap={4}>
                {files.length > 1 && (
                  <>
                    <ActionIcon variant="subtle" aria-label={t('words/before')} onClick={() => step(-1)}>
                      <IconChevronLeft size={16} />
                    </ActionIcon>
                    <ActionIcon variant="subtle" aria-label={t('words/after')} onClick={() => step(1)}>
                      <IconChevronRight size={16} />
                    </ActionIcon>
                  </>
                )}
              </Group>
              <Button
                component="a"
                size="compact-sm"
                variant="default"
                leftSection={<IconDownload size={14} />}
                href={`/api/v1/files/${file.id}`}
                download={file.name}
              >
                {t('words/save', { name: file.name })}
              </Button>
            </Group>
            <Content file={file} />
          </div>
        </div>
      )}
    </Modal>
  );
}
