import { TextInput } from '@mantine/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState, type ReactNode } from 'react';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';
import classes from './Matters.module.css';
import { Sureness } from './Sureness';

/** What words would be taken for, as it has learned now. */
export function Trial({ children }: { children: ReactNode }) {
  const { t, language } = useWords();
  const [words, setWords] = useState('');
  const q = useDeferredValue(words.trim());
  const { data } = useQuery({
    queryKey: ['matters', 'trial', q, language],
    enabled: q !== '',
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) => call(api.assistant.understood, { query: { q, language }, signal }),
  });
  return (
    <aside className={classes.trial}>
      <TextInput
        label={t('assistant/workshop/trial')}
        description={t('assistant/workshop/trialHelp')}
        value={words}
        onChange={({ target }) => setWords(target.value)}
      />
      {q !== '' && data && (
        <>
          <p>{t(`assistant/workshop/kinds/${data.kind}`)}</p>
          <Sureness likely={data.likely} />
        </>
      )}
      {children}
    </aside>
  );
}
