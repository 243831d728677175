import { Button, Group, TextInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import type { KnowledgeDoor } from '../../contract/knowledge';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import '../messages/knowledgeWords';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';

type Props = {
  articleId: string;
  door: KnowledgeDoor;
  /** Whether a request would be written otherwise: then it counts as one that was not needed. */
  isInstead: boolean;
  number?: number | null;
  /** After “That was it”. */
  onHelped?(): void;
};

/** Whether an article was it, and a word on why not. */
export function Judge({ articleId, door, isInstead, number = null, onHelped }: Props) {
  const { t } = useWords();
  const [words, setWords] = useState('');
  const judge = useMutation({
    mutationFn: ({ helped, said }: { helped: boolean; said: string }) =>
      call(api.knowledge.judge, {
        params: { id: articleId },
        body: { helped, words: said, door, isInstead, number },
        key: nanoid(),
      }),
    onSuccess: (_, { helped }) => helped && onHelped?.(),
  });
  const said = judge.isSuccess ? judge.variables : null;
  if (said?.helped) return <p role="status">{t(isInstead ? 'knowledge/solved' : 'knowledge/judged')}</p>;
  return (
    <div>
      <Group gap="xs">
        <strong>{t('knowledge/didItHelp')}</strong>
        <Button
          size="xs"
          loading={judge.isPending && judge.variables.helped}
          onClick={() => judge.mutate({ helped: true, said: '' })}
        >
          {t('knowledge/thatWasIt')}
        </Button>
        <Button
          size="xs"
          variant="default"
          aria-pressed={said !== null}
          onClick={() => judge.mutate({ helped: false, said: '' })}
        >
          {t('knowledge/notForMe')}
        </Button>
      </Group>
      {said?.said === '' && (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            judge.mutate({ helped: false, said: words });
          }}
        >
          <Group gap="xs" mt="xs" align="flex-end">
            <TextInput
              size="xs"
              w={320}
              label={t('knowledge/wordWhy')}
              value={words}
              onChange={({ target }) => setWords(target.value)}
            />
            <Button size="xs" variant="default" type="submit" disabled={words.trim() === ''}>
              {t('knowledge/sayIt')}
            </Button>
          </Group>
        </form>
      )}
      {said !== null && said.said !== '' && <p role="status">{t('knowledge/judged')}</p>}
      {judge.error && <ProblemNote error={judge.error} />}
    </div>
  );
}
