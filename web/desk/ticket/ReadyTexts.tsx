import { Button, Group, Modal, NativeSelect, Popover, Stack, Textarea, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import type { ReadyText } from '../../../contract/readyTexts';
import { findByLetters } from '../../../core/readyTexts';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useMe, useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useKeys } from '../../ui/useKeys';
import { useProblems } from '../../ui/useProblems';
import classes from './DeskTicket.module.css';

type Editing = Pick<ReadyText, 'teamId' | 'name' | 'text'> & { id?: string; version?: number };

function Form({ from, onClose }: { from: Editing; onClose(): void }) {
  const { t, local } = useWords();
  const me = useMe();
  const client = useQueryClient();
  const { data: teams = [] } = useTeams();
  const [text, setText] = useState(from);
  const own = teams.filter(({ members }) => members.some(({ id }) => id === me.id));
  const done = async (): Promise<void> => {
    await client.invalidateQueries({ queryKey: ['readyTexts'] });
    onClose();
  };
  const save = useMutation({
    mutationFn: async () => {
      const { id, version, ...body } = text;
      if (id) await call(api.readyTexts.update, { params: { id }, body: { ...body, version: version! } });
      else await call(api.readyTexts.create, { body, key: nanoid() });
    },
    onSuccess: done,
  });
  const remove = useMutation({
    mutationFn: () => call(api.readyTexts.remove, { params: { id: text.id! } }),
    onSuccess: done,
  });
  const problems = useProblems()(save.error);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <Stack gap="sm">
        <Group grow align="flex-start">
          <TextInput
            data-autofocus
            label={t('ready/name')}
            value={text.name}
            error={problems.name}
            onChange={({ target }) => setText({ ...text, name: target.value })}
          />
          <NativeSelect
            label={t('ready/sharedWith')}
            value={text.teamId ?? ''}
            data={[
              { value: '', label: t('lists/justMe') },
              ...own.map(({ id, name }) => ({ value: id, label: local(name) })),
            ]}
            onChange={({ target }) => setText({ ...text, teamId: target.value || null })}
          />
        </Group>
        {(['en', 'pt'] as const).map((language) => (
          <Textarea
            key={language}
            autosize
            minRows={3}
            label={t(`ready/${language}`)}
            value={text.text[language]}
            error={language === 'en' ? problems.text : undefined}
            onChange={({ target }) => setText({ ...text, text: { ...text.text, [language]: target.value } })}
          />
        ))}
        <small className={classes.quiet}>{t('ready/blanks')}</small>
        {save.error && Object.keys(problems).length === 0 && <ProblemNote error={save.error} />}
        <Group gap="xs">
          <Button type="submit" loading={save.isPending}>
            {t('common/save')}
          </Button>
          <Button variant="default" onClick={onClose}>
            {t('common/cancel')}
          </Button>
          {text.id && (
            <Button variant="subtle" ms="auto" loading={remove.isPending} onClick={() => remove.mutate()}>
              {t('ready/remove')}
            </Button>
          )}
        </Group>
      </Stack>
    </form>
  );
}

/** All ready texts that one may change. */
function Manage({ onClose, first }: { onClose(): void; first: Editing | null }) {
  const { t } = useWords();
  const [editing, setEditing] = useState<Editing | null>(first);
  const { data = [], error } = useQuery({
    queryKey: ['readyTexts', 'all'],
    queryFn: () => call(api.readyTexts.list),
  });
  return (
    <Modal opened onClose={onClose} size="lg" title={t('ready/title')}>
      <ProblemNote error={error} />
      {editing ? (
        <Form
          key={editing.id ?? 'new'}
          from={editing}
          onClose={() => (first ? onClose() : setEditing(null))}
        />
      ) : (
        <Stack gap={4} align="flex-start">
          {data.length === 0 && <p>{t('ready/empty')}</p>}
          {data
            .filter(({ mayEdit }) => mayEdit)
            .map((text) => (
              <Button key={text.id} size="compact-sm" variant="subtle" onClick={() => setEditing(text)}>
                <bdi>{text.name}</bdi>
              </Button>
            ))}
          <Button
            size="compact-sm"
            variant="default"
            mt="sm"
            onClick={() => setEditing({ teamId: null, name: '', text: { en: '', pt: '' } })}
          >
            {t('ready/add')}
          </Button>
        </Stack>
      )}
    </Modal>
  );
}

/** Ready texts for a ticket, found by a few letters and put in with their blanks filled. */
export function ReadyTexts({
  number,
  written,
  onInsert,
}: {
  number: number;
  written: string;
  onInsert(text: string): void;
}) {
  const { t } = useWords();
  const [isOpen, setOpen] = useState(false);
  const [q, setQ] = useState('');
  const [at, setAt] = useState(0);
  const [managing, setManaging] = useState<{ first: Editing | null } | null>(null);
  const { data = [] } = useQuery({
    queryKey: ['readyTexts', number],
    enabled: isOpen,
    queryFn: () => call(api.readyTexts.forTicket, { params: { number } }),
  });
  useKeys({ r: () => setOpen(true) });
  const found = findByLetters(data, q);
  const insert = (text: string): void => {
    setOpen(false);
    setQ('');
    onInsert(text);
  };
  const manage = (first: Editing | null): void => {
    setOpen(false);
    setManaging({ first });
  };
  return (
    <>
      <Popover opened={isOpen} onChange={setOpen} width={420} position="top-start" withArrow trapFocus>
        <Popover.Target>
          <button type="button" className={classes.link} onClick={() => setOpen(!isOpen)}>
            <small>{t('ready/title')}</small>
          </button>
        </Popover.Target>
        <Popover.Dropdown>
          <TextInput
            data-autofocus
            size="xs"
            role="combobox"
            aria-expanded
            aria-controls="ready-texts"
            aria-label={t('ready/find')}
            placeholder={t('ready/find')}
            value={q}
            onChange={({ target }) => {
              setQ(target.value);
              setAt(0);
            }}
            onKeyDown={(event) => {
              const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
              if (step !== 0) {
                event.preventDefault();
                setAt(Math.min(found.length - 1, Math.max(0, at + step)));
              }
              if (event.key === 'Enter' && found[at]) {
                event.preventDefault();
                insert(found[at].text);
              }
            }}
          />
          <ul id="ready-texts" role="listbox" aria-label={t('ready/title')} className={classes.ready}>
            {found.slice(0, 8).map(({ id, name, text }, i) => (
              <li
                key={id}
                role="option"
                aria-selected={i === at}
                aria-label={t('ready/insert', { name })}
                onClick={() => insert(text)}
              >
                <strong>
                  <bdi>{name}</bdi>
                </strong>
                <small>
                  <bdi>{text}</bdi>
                </small>
              </li>
            ))}
          </ul>
          {found.length === 0 && <small className={classes.quiet}>{t('ready/none')}</small>}
          <Group gap={6} mt={6}>
            {written.trim() !== '' && (
              <Button
                size="compact-xs"
                variant="default"
                onClick={() => manage({ teamId: null, name: '', text: { en: written, pt: '' } })}
              >
                {t('ready/keep')}
              </Button>
            )}
            <Button size="compact-xs" variant="subtle" onClick={() => manage(null)}>
              {t('ready/manage')}
            </Button>
          </Group>
        </Popover.Dropdown>
      </Popover>
      {managing && <Manage first={managing.first} onClose={() => setManaging(null)} />}
    </>
  );
}
