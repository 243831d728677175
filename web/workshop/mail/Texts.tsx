import { Button, Group, Textarea, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { AnswerOf } from '../../../contract/endpoint';
import { LANGUAGES } from '../../../core/forms';
import { MAIL_BLANKS, writeMail, type MailBlanks, type MailTexts } from '../../../core/mail';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useProblems } from '../../ui/useProblems';
import { Waiting } from '../../ui/Waiting';
import classes from '../Workshop.module.css';
import own from './Texts.module.css';

type Text = AnswerOf<typeof api.mail.texts>[number];
const SAMPLED = [
  'title',
  'who',
  'words',
  'service',
  'requester',
  'facts',
  'cost',
  'promised',
  'name',
] as const;

function Editor({ text, onClose }: { text: Text; onClose(): void }) {
  const { t } = useWords();
  const client = useQueryClient();
  const [texts, setTexts] = useState<MailTexts>(text.texts);
  const save = useMutation({
    mutationFn: (next: MailTexts | null) =>
      call(api.mail.saveText, {
        params: { template: text.template },
        body: { version: text.version, texts: next },
      }),
    onSuccess: async () => {
      notifications.show({ message: t('mail/saved') });
      await client.invalidateQueries({ queryKey: ['mailTexts'] });
      onClose();
    },
  });
  const problems = useProblems()(save.error);
  const sample: MailBlanks = {
    ...Object.fromEntries(SAMPLED.map((name) => [name, t(`mail/sample/${name}`)])),
    ...{ number: '20418', link: `${window.location.origin}/ask` },
  };
  return (
    <div className={own.editor}>
      <p className={classes.small}>
        {t('mail/blanks', { blanks: MAIL_BLANKS.map((name) => `{${name}}`).join(' ') })}
      </p>
      {LANGUAGES.map((language) => {
        const set = (part: object): void =>
          setTexts({ ...texts, [language]: { ...texts[language], ...part } });
        const written = writeMail(texts, language, sample);
        return (
          <div key={language} className={own.pair} lang={language}>
            <div>
              <TextInput
                size="xs"
                label={`${t('mail/subject')}, ${language}`}
                value={texts[language].subject}
                error={problems[`texts.${language}.subject`]}
                onChange={({ target }) => set({ subject: target.value })}
              />
              <Textarea
                size="xs"
                autosize
                minRows={6}
                label={`${t('mail/text')}, ${language}`}
                value={texts[language].text}
                error={problems[`texts.${language}.text`]}
                onChange={({ target }) => set({ text: target.value })}
              />
            </div>
            <div className={own.preview} aria-label={`${t('mail/preview')}, ${language}`} role="group">
              <small className={classes.small}>{t('mail/preview')}</small>
              <strong>{written.subject}</strong>
              <p>{written.text}</p>
            </div>
          </div>
        );
      })}
      <ProblemNote error={Object.keys(problems).length === 0 ? save.error : null} />
      <Group>
        <Button size="xs" loading={save.isPending} onClick={() => save.mutate(texts)}>
          {t('mail/save')}
        </Button>
        <Button size="xs" variant="default" onClick={onClose}>
          {t('common/cancel')}
        </Button>
        {text.isOwn && (
          <Button size="xs" variant="subtle" color="gray" onClick={() => save.mutate(null)}>
            {t('mail/back')}
          </Button>
        )}
      </Group>
    </div>
  );
}

/** Every text that goes out by mail, in both languages, with a preview. */
export function Texts() {
  const { t, language } = useWords();
  const [open, setOpen] = useState<string | null>(null);
  const { data, error, refetch } = useQuery({ queryKey: ['mailTexts'], queryFn: () => call(api.mail.texts) });
  if (error) return <ProblemNote error={error} onRetry={() => void refetch()} />;
  if (!data) return <Waiting />;
  return (
    <ul className={own.list}>
      {data.map((text) => (
        <li key={text.template}>
          <button
            type="button"
            className={own.open}
            aria-expanded={open === text.template}
            onClick={() => setOpen(open === text.template ? null : text.template)}
          >
            {t(`mail/templates/${text.template}`)}
          </button>{' '}
          <small>
            {text.texts[language].subject}
            {text.isOwn && ` · ${t('mail/own')}`}
          </small>
          {open === text.template && <Editor text={text} onClose={() => setOpen(null)} />}
        </li>
      ))}
    </ul>
  );
}
