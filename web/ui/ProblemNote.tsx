import { Alert, Button, Group } from '@mantine/core';
import { ApiProblem } from '../api/call';
import { useWords } from '../messages/useWords';

/** What went wrong, in words, with a way on; nothing where nothing did. */
export function ProblemNote({ error, onRetry }: { error: unknown; onRetry?: () => void }) {
  const { t } = useWords();
  if (error === null || error === undefined) return null;
  const code = error instanceof ApiProblem ? error.code : 'unexpected';
  return (
    <Alert color="gray" variant="outline" role="alert" title={t('lost/failed')}>
      {t(`problems/${code}`)}
      {onRetry && (
        <Group mt="xs">
          <Button variant="default" size="xs" onClick={onRetry}>
            {t('lost/again')}
          </Button>
        </Group>
      )}
    </Alert>
  );
}
