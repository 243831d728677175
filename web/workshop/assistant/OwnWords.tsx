import { Button, MultiSelect, Switch } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { AssistantWords } from '../../../contract/assistant';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useAllServices } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { Waiting } from '../../ui/Waiting';
import { BothLanguages } from '../../ui/BothLanguages';
import classes from './Matters.module.css';

const PARTS = ['greeting', 'handOver', 'thanks', 'followUp', 'closing'] as const;

/** What it greets, hands over, thanks and closes with, in both languages. */
export function OwnWords() {
  const { t, local } = useWords();
  const client = useQueryClient();
  const { data: services = [] } = useAllServices();
  const { data: articles = [] } = useQuery({
    queryKey: ['articles'],
    queryFn: () => call(api.knowledge.browse),
  });
  const { data, error, refetch } = useQuery({
    queryKey: ['assistantWords'],
    queryFn: () => call(api.assistant.words),
  });
  const [changed, setChanged] = useState<Partial<AssistantWords>>({});
  const save = useMutation({
    mutationFn: () => call(api.assistant.setWords, { body: { ...data!, ...changed } }),
    onSuccess: async () => {
      notifications.show({ message: t('assistant/workshop/saved', { name: t('assistant/workshop/words') }) });
      await client.invalidateQueries({ queryKey: ['assistantWords'] });
      setChanged({});
    },
  });
  if (error && !data) return <ProblemNote error={error} onRetry={() => void refetch()} />;
  if (!data) return <Waiting />;
  const words = { ...data, ...changed };
  return (
    <form
      className={classes.words}
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <Switch
        label={t('assistant/workshop/isOnInAsk')}
        checked={words.isOn}
        onChange={({ target }) => setChanged({ ...changed, isOn: target.checked })}
      />
      <p className={classes.quiet}>{t('assistant/workshop/wordsLead')}</p>
      {PARTS.map((part) => (
        <BothLanguages
          key={part}
          label={t(`assistant/workshop/ownWords/${part}`)}
          value={words[part]}
          isFixed={false}
          onChange={(value) => setChanged({ ...changed, [part]: value })}
        />
      ))}
      <MultiSelect
        size="xs"
        searchable
        maxValues={6}
        label={t('assistant/workshop/greetsWith')}
        value={words.greetsWith.map(({ kind, id }) => `${kind}:${id}`)}
        data={[
          ...articles.map(({ id, title }) => ({ value: `article:${id}`, label: title })),
          ...services.map(({ id, title }) => ({ value: `service:${id}`, label: local(title) })),
        ]}
        onChange={(values) =>
          setChanged({
            ...changed,
            greetsWith: values.map((value) => {
              const [kind, id] = value.split(':') as ['article' | 'service', string];
              return { kind, id };
            }),
          })
        }
      />
      {save.error && <ProblemNote error={save.error} />}
      <Button type="submit" loading={save.isPending} disabled={Object.keys(changed).length === 0}>
        {t('assistant/workshop/save')}
      </Button>
    </form>
  );
}
