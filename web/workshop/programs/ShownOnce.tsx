import { Button, Code, CopyButton, Group, Modal, Text } from '@mantine/core';
import { useWords } from '../../messages/useWords';

/** A secret that is shown this once, to be copied. It does not close by a click beside it. */
export function ShownOnce({ secret, onClose }: { secret: string; onClose(): void }) {
  const { t } = useWords();
  return (
    <Modal
      {...{ opened: true, onClose, size: 'lg', closeOnClickOutside: false, withCloseButton: false }}
      title={t('programs/once')}
    >
      <Text size="sm" mb="sm">
        {t('programs/onceHelp')}
      </Text>
      <Code block data-testid="secret" style={{ overflowWrap: 'anywhere', whiteSpace: 'pre-wrap' }}>
        {secret}
      </Code>
      <Group mt="md" gap="xs">
        <CopyButton value={secret}>
          {({ copied, copy }) => (
            <Button onClick={copy} data-autofocus>
              {t(copied ? 'programs/copied' : 'programs/copy')}
            </Button>
          )}
        </CopyButton>
        <Button variant="default" onClick={onClose}>
          {t('programs/closeOnce')}
        </Button>
      </Group>
    </Modal>
  );
}
