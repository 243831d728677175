import { Center, Text } from '@mantine/core';
import { useWords } from '../messages/useWords';

/** Something is on its way. */
export function Waiting() {
  const { t } = useWords();
  return (
    <Center p="xl" role="status">
      <Text c="dimmed">{t('common/loading')}</Text>
    </Center>
  );
}
