import { Button, Textarea } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { LANGUAGES, type Language } from '../../core/forms';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { Waiting } from '../ui/Waiting';
import { KnowledgeFrame } from './KnowledgeFrame';
import classes from './Knowledge.module.css';

/** Words that stand for the same, as authors keep them. */
export function SynonymsPage() {
  const { t } = useWords();
  const client = useQueryClient();
  const { data, error } = useQuery({
    queryKey: ['knowledge', 'synonyms'],
    queryFn: () => call(api.knowledge.synonyms),
  });
  const [changed, setChanged] = useState<Partial<Record<Language, string>>>({});
  const save = useMutation({
    mutationFn: () => call(api.knowledge.setSynonyms, { body: { ...data!, ...changed } }),
    onSuccess: () => {
      setChanged({});
      notifications.show({ message: t('knowledge/saved', { name: t('knowledge/otherWords') }) });
    },
    onSettled: () => client.invalidateQueries({ queryKey: ['knowledge'] }),
  });
  return (
    <KnowledgeFrame lead={t('knowledge/synonymsLead')}>
      {error && !data && <ProblemNote error={error} />}
      {!data && !error && <Waiting />}
      {data && (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            save.mutate();
          }}
        >
          <div className={classes.split}>
            {LANGUAGES.map((language) => (
              <Textarea
                key={language}
                autosize
                minRows={12}
                label={t(language === 'en' ? 'knowledge/inEnglish' : 'knowledge/inPortuguese')}
                value={changed[language] ?? data[language]}
                onChange={({ target }) => setChanged({ ...changed, [language]: target.value })}
              />
            ))}
          </div>
          {save.error && <ProblemNote error={save.error} />}
          <div className={classes.foot}>
            <Button type="submit" loading={save.isPending} disabled={Object.keys(changed).length === 0}>
              {t('knowledge/save')}
            </Button>
          </div>
        </form>
      )}
    </KnowledgeFrame>
  );
}
