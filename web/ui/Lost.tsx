import { Button, Center, Stack, Text, Title } from '@mantine/core';
import { Link } from 'react-router';
import { useWords } from '../messages/useWords';

/** Nothing is at this address (or it is not the viewer's to see), or a page broke; either way there is a way on. */
export function Lost({ isFailed = false }: { isFailed?: boolean }) {
  const { t } = useWords();
  return (
    <Center mih="60vh" p="xl">
      <Stack align="flex-start" gap="sm">
        <Title order={1} size="h2">
          {t(isFailed ? 'problems/unexpected' : 'lost/title')}
        </Title>
        {!isFailed && <Text c="dimmed">{t('lost/lead')}</Text>}
        <Button component={Link} to="/" reloadDocument={isFailed}>
          {t('lost/home')}
        </Button>
      </Stack>
    </Center>
  );
}
