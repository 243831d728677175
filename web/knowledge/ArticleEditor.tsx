import {
  Button,
  FileButton,
  Group,
  NativeSelect,
  SegmentedControl,
  TagsInput,
  Textarea,
  TextInput,
} from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useDeferredValue, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { ArticleBody } from '../../contract/knowledge';
import type { AnswerOf } from '../../contract/endpoint';
import { PLACES, type Place } from '../../contract/names';
import { LANGUAGES, type Language, type LocalText } from '../../core/forms';
import { inLanguage, type ArticleState } from '../../core/knowledge';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import { useMe, useTeams } from '../api/queries';
import { useDraft } from '../api/useDraft';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { useProblems } from '../ui/useProblems';
import { editByKey } from '../words/Tools';
import { ArticleText } from './ArticleText';
import { ArticleTools } from './ArticleTools';
import { Owner } from './Owner';
import { Readers } from './Readers';
import { Use } from './Use';
import { usePictures } from './usePictures';
import { Versions } from './Versions';
import classes from './Knowledge.module.css';
import { DayInput } from '../ui/DayInput';

type Whole = AnswerOf<typeof api.knowledge.get>;
type Props = { place: string; fresh: ArticleBody; article: Whole | null };

const toDate = (at: number | null): string => (at === null ? '' : new Date(at).toISOString().slice(0, 10));

function bodyOf(article: Whole): ArticleBody {
  const { teamId, ownerId, place, labels, isOpen, audience, reviewAt, title, body, otherWords, fromTicket } =
    article;
  return { teamId, ownerId, place, labels, isOpen, audience, reviewAt, title, body, otherWords, fromTicket };
}

/** Gives an article out as a Markdown file. */
function giveOut(title: string, body: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([`# ${title}\n\n${body}\n`], { type: 'text/markdown' }));
  link.download = `${title.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase()}.md`;
  link.click();
  URL.revokeObjectURL(link.href);
}

/** The language in which there is a heading, one’s own before the others. */
const languageOf = (title: LocalText, own: Language): Language =>
  [own, ...LANGUAGES].find((language) => title[language].trim() !== '') ?? own;

/** Writes an article in both languages, with how it reads beside; what is written is kept until it is saved. */
export function ArticleEditor({ place, fresh, article }: Props) {
  const { t, local, language: own } = useWords();
  const me = useMe();
  const navigate = useNavigate();
  const client = useQueryClient();
  const { data: teams = [] } = useTeams();
  const version = article?.version ?? 0;
  const [draft, setDraft, clear] = useDraft<ArticleBody>(
    `article:${place}:${version}`,
    article ? bodyOf(article) : fresh,
  );
  // What was begun in another language, of a question that was asked in it, opens in that.
  const [language, setLanguage] = useState<Language>(() => languageOf(fresh.title, own));
  const isFixed = article !== null && !article.mayEdit;
  const set = (change: Partial<ArticleBody>): void => setDraft({ ...draft, ...change });
  const write = (part: 'title' | 'body' | 'otherWords', text: string): void =>
    set({ [part]: { ...draft[part], [language]: text } });
  const renew = () => client.invalidateQueries({ queryKey: ['knowledge'] });
  const save = useMutation({
    mutationFn: async () => {
      if (!article) return (await call(api.knowledge.create, { body: draft, key: nanoid() })).id;
      await call(api.knowledge.update, { params: { id: article.id }, body: { ...draft, version } });
      return article.id;
    },
    onSuccess: async (id) => {
      clear();
      notifications.show({ message: t('knowledge/saved', { name: inLanguage(draft.title, own) }) });
      await renew();
      if (!article) await navigate(`/knowledge/articles/${id}`, { replace: true });
    },
  });
  const move = useMutation({
    mutationFn: (to: ArticleState) =>
      call(api.knowledge.move, { params: { id: article!.id }, body: { to, version }, key: nanoid() }),
    onSuccess: (_, to) => notifications.show({ message: t(`knowledge/moved/${to}`) }),
    onSettled: renew,
  });
  const [ownerName, setOwnerName] = useState(
    draft.ownerId === me.id ? me.name : (article?.owner?.name ?? ''),
  );
  const field = useRef<HTMLTextAreaElement>(null);
  const pictures = usePictures(field);
  const problems = useProblems()(save.error);
  const shown = useDeferredValue(draft.body[language]);
  const isChanged = JSON.stringify(draft) !== JSON.stringify(article ? bodyOf(article) : fresh);
  const hasWords = [draft.title, draft.body].some(({ en, pt }) => `${en}${pt}`.trim() !== '');
  const mine = teams.filter(
    ({ id }) => me.isAdministrator || me.teams.some(({ teamId }) => teamId === id) || id === draft.teamId,
  );
  async function takeIn(file: File | null): Promise<void> {
    if (!file) return;
    const [, heading, rest] = /^\s*#\s+(.+)\n([\s\S]*)$/.exec(await file.text()) ?? [];
    const body = rest ?? (await file.text());
    set({
      body: { ...draft.body, [language]: body.trim() },
      ...(heading && { title: { ...draft.title, [language]: heading.trim() } }),
    });
  }
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      {article && (
        <p className={classes.counts}>
          <span>
            <b>{t(`knowledge/states/${article.state}`)}</b>
            {article.hasChanges && `, ${t('knowledge/changed')}`}
          </span>
          {(['opened', 'helped', 'notHelped', 'deflected', 'shared', 'doneWith'] as const).map((count) => (
            <span key={count}>
              <b>{article.counts[count]}</b> {t(`knowledge/counts/${count}`)}
            </span>
          ))}
          {isFixed && <span>{t('knowledge/notYours')}</span>}
          {draft.fromTicket !== null && (
            <Link to={`/desk/everything/${draft.fromTicket}`}>#{draft.fromTicket}</Link>
          )}
        </p>
      )}
      <div className={classes.facts}>
        <NativeSelect
          size="xs"
          label={t('knowledge/teams')}
          disabled={isFixed}
          value={draft.teamId}
          data={mine.map(({ id, name }) => ({ value: id, label: local(name) }))}
          onChange={({ target }) => set({ teamId: target.value })}
        />
        <NativeSelect
          size="xs"
          label={t('knowledge/place')}
          disabled={isFixed}
          value={draft.place}
          data={PLACES.map((value) => ({ value, label: t(`ask/places/${value}`) }))}
          onChange={({ target }) => set({ place: target.value as Place })}
        />
        <Owner
          name={ownerName}
          isFixed={isFixed}
          onChange={({ id, name }) => {
            set({ ownerId: id });
            setOwnerName(name);
          }}
        />
        <DayInput
          size="xs"
          label={t('knowledge/reviewAt')}
          readOnly={isFixed}
          value={toDate(draft.reviewAt)}
          onChange={(day) => set({ reviewAt: day ? Date.parse(`${day}T09:00Z`) : null })}
        />
        <TagsInput
          size="xs"
          label={t('knowledge/labels')}
          description={t('knowledge/labelsHelp')}
          readOnly={isFixed}
          value={draft.labels}
          onChange={(labels) => set({ labels })}
        />
        <Readers draft={draft} isFixed={isFixed} onChange={set} />
      </div>
      {save.error && <ProblemNote error={save.error} />}
      {move.error && <ProblemNote error={move.error} />}
      <div className={classes.foot}>
        <SegmentedControl
          size="xs"
          value={language}
          aria-label={t('frame/language')}
          data={[
            { value: 'en', label: t('knowledge/inEnglish') },
            { value: 'pt', label: t('knowledge/inPortuguese') },
          ]}
          onChange={(value) => setLanguage(value)}
        />
        {!isFixed && (
          <Button type="submit" loading={save.isPending} disabled={article ? !isChanged : !hasWords}>
            {t('knowledge/save')}
          </Button>
        )}
        {article?.moves.map((to) => (
          <Button
            key={to}
            variant="default"
            disabled={isChanged}
            loading={move.isPending && move.variables === to}
            onClick={() => move.mutate(to)}
          >
            {t(`knowledge/moves/${to}`)}
          </Button>
        ))}
        <Group gap="xs" ms="auto">
          {!isFixed && (
            <FileButton accept=".md,.markdown,text/markdown" onChange={(file) => void takeIn(file)}>
              {(props) => (
                <Button {...props} size="xs" variant="subtle">
                  {t('knowledge/takeIn')}
                </Button>
              )}
            </FileButton>
          )}
          <Button
            size="xs"
            variant="subtle"
            onClick={() => giveOut(draft.title[language], draft.body[language])}
          >
            {t('knowledge/giveOut')}
          </Button>
        </Group>
      </div>
      <div className={classes.split}>
        <div lang={language}>
          <TextInput
            label={t('knowledge/heading')}
            readOnly={isFixed}
            value={draft.title[language]}
            error={problems.title}
            onChange={({ target }) => write('title', target.value)}
          />
          <TextInput
            size="xs"
            mt="xs"
            label={t('knowledge/said')}
            readOnly={isFixed}
            value={draft.otherWords[language]}
            onChange={({ target }) => write('otherWords', target.value)}
          />
          {!isFixed && <ArticleTools field={field} pictures={pictures} />}
          <Textarea
            ref={field}
            autosize
            minRows={14}
            maxRows={34}
            mt="xs"
            className={classes.body ?? ''}
            label={t('knowledge/body')}
            description={t('knowledge/bodyHelp')}
            readOnly={isFixed}
            value={draft.body[language]}
            error={problems.body}
            onChange={({ target }) => write('body', target.value)}
            onKeyDown={editByKey}
            onPaste={({ clipboardData }) => pictures.putAll([...clipboardData.files])}
          />
        </div>
        <section className={classes.preview} aria-label={t('knowledge/preview')} tabIndex={0}>
          <h3>{draft.title[language]}</h3>
          <ArticleText body={shown} lang={language} />
        </section>
      </div>
      <p className={classes.quiet}>{t('knowledge/kept')}</p>
      {article && article.state !== 'draft' && <Use id={article.id} />}
      {article && article.state !== 'draft' && <Versions id={article.id} language={language} />}
    </form>
  );
}
