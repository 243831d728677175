import { Button, Textarea, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNow } from '../api/clock';
import { useMe } from '../api/queries';
import { useDraft } from '../api/useDraft';
import { addMailWords } from '../messages/mailWords';
import { useWords } from '../messages/useWords';
import { Lost } from '../ui/Lost';
import { useTimes } from '../ui/useTimes';
import { Waiting } from '../ui/Waiting';
import classes from './Mailbox.module.css';

addMailWords();

type Mail = {
  id: string;
  at: number;
  fromName: string;
  replyTo: string;
  subject: string;
  text: string;
  messageId: string;
};
type Box = { address: string; mails: Mail[] };
type Letter = { to: string; subject: string; text: string; inReplyTo: string | null };

const ADDRESS = '/stand-in/mailbox';
const LOOK_MS = 2_000;

async function readBox(): Promise<Box | null> {
  const response = await fetch(ADDRESS);
  return response.ok ? ((await response.json()) as Box) : null;
}

async function sendLetter(letter: Letter): Promise<void> {
  const response = await fetch(ADDRESS, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(letter),
  });
  if (!response.ok) throw new Error('not sent');
}

function Writing({ name, letter, onClose }: { name: string; letter: Letter; onClose(): void }) {
  const { t } = useWords();
  const [draft, setDraft, clear] = useDraft<Letter>(`mailbox:${name}`, letter);
  const send = useMutation({
    mutationFn: () => sendLetter(draft),
    onSuccess: () => {
      clear();
      notifications.show({ message: t('mail/box/sent') });
      onClose();
    },
  });
  return (
    <div className={classes.writing}>
      <TextInput
        label={t('mail/to')}
        value={draft.to}
        onChange={({ target }) => setDraft({ ...draft, to: target.value })}
      />
      <TextInput
        label={t('mail/subject')}
        value={draft.subject}
        onChange={({ target }) => setDraft({ ...draft, subject: target.value })}
      />
      <Textarea
        autosize
        minRows={5}
        maxRows={18}
        label={t('mail/text')}
        value={draft.text}
        onChange={({ target }) => setDraft({ ...draft, text: target.value })}
      />
      {send.error && <p role="alert">{t('mail/box/failed')}</p>}
      <div>
        <Button size="xs" loading={send.isPending} onClick={() => send.mutate()}>
          {t('mail/box/send')}
        </Button>{' '}
        <Button size="xs" variant="subtle" onClick={onClose}>
          {t('common/cancel')}
        </Button>
      </div>
    </div>
  );
}

/** The mail program of a demo person: what Listo wrote to them, and what they answer. */
export function Mailbox() {
  const { t } = useWords();
  const times = useTimes();
  const me = useMe();
  const now = useNow(30_000);
  const [openId, setOpenId] = useState<string | null>(null);
  const [writing, setWriting] = useState<'answer' | 'new' | null>(null);
  const { data, isPending } = useQuery({
    queryKey: ['mailbox', me.id],
    queryFn: readBox,
    refetchInterval: LOOK_MS,
  });
  if (isPending) return <Waiting />;
  if (!data) return <Lost />;
  const mail = data.mails.find(({ id }) => id === openId);
  const quoted = mail
    ? `\n\n${t('mail/box/quote', { when: times.full(mail.at), who: mail.fromName })}\n${mail.text.replace(/^/gm, '> ')}`
    : '';
  return (
    <div className={classes.page}>
      <h1>{t('mail/box/title', { address: data.address })}</h1>
      <p className={classes.lead}>{t('mail/box/lead')}</p>
      <Button size="xs" variant="default" onClick={() => setWriting('new')}>
        {t('mail/box/write')}
      </Button>
      {writing === 'new' && (
        <Writing
          name="new"
          letter={{ to: 'helpdesk@listo.example', subject: '', text: '', inReplyTo: null }}
          onClose={() => setWriting(null)}
        />
      )}
      {data.mails.length === 0 && <p>{t('mail/box/empty')}</p>}
      {data.mails.length > 0 && (
        <div className={classes.split}>
          <ul className={classes.list}>
            {data.mails.map(({ id, subject, fromName, at }) => (
              <li key={id}>
                <button
                  type="button"
                  aria-current={id === openId || undefined}
                  onClick={() => {
                    setOpenId(id);
                    setWriting(null);
                  }}
                >
                  <strong>{fromName}</strong> <small>{times.when(at, now)}</small>
                  <span>{subject}</span>
                </button>
              </li>
            ))}
          </ul>
          <div className={classes.mail}>
            {!mail && <p className={classes.lead}>{t('mail/box/choose')}</p>}
            {mail && (
              <>
                <h2>{mail.subject}</h2>
                <p className={classes.text}>{mail.text}</p>
                {writing !== 'answer' && (
                  <Button size="xs" onClick={() => setWriting('answer')}>
                    {t('mail/box/answer')}
                  </Button>
                )}
                {writing === 'answer' && (
                  <Writing
                    key={mail.id}
                    name={mail.id}
                    letter={{
                      to: mail.replyTo,
                      subject: `Re: ${mail.subject}`,
                      text: quoted,
                      inReplyTo: mail.messageId,
                    }}
                    onClose={() => setWriting(null)}
                  />
                )}
              </>
            )}
          </div>
        </div>
      )}
    </div>
  );
}
