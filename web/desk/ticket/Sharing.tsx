import { Button, Group, Textarea } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useDraft } from '../../api/useDraft';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { Waiting } from '../../ui/Waiting';

type Props = {
  number: number;
  articleId: string;
  requesterName: string;
  onSend(text: string): void;
  onClose(): void;
};

/** The answer with which an article goes to the requester, to be read over and changed first. */
export function Sharing({ number, articleId, requesterName, onSend, onClose }: Props) {
  const { t } = useWords();
  const [own, setOwn] = useDraft<string | null>(`sharing:${number}:${articleId}`, null);
  const { data, error } = useQuery({
    queryKey: ['sharing', number, articleId],
    queryFn: () => call(api.knowledge.shareText, { params: { number, id: articleId } }),
  });
  if (error) return <ProblemNote error={error} />;
  if (!data) return <Waiting />;
  const text = own ?? data.text;
  return (
    <form
      style={{ gridColumn: '1 / -1' }}
      onSubmit={(event) => {
        event.preventDefault();
        onSend(text);
      }}
    >
      <Textarea
        autosize
        autoFocus
        maxRows={10}
        label={t('page/answerPlaceholder', { name: requesterName })}
        value={text}
        onChange={({ target }) => setOwn(target.value)}
      />
      <Group gap="xs" mt={6}>
        <Button size="compact-sm" type="submit" disabled={text.trim() === ''}>
          {t('page/sendTo', { name: requesterName })}
        </Button>
        <Button size="compact-sm" variant="default" onClick={onClose}>
          {t('common/cancel')}
        </Button>
      </Group>
    </form>
  );
}
