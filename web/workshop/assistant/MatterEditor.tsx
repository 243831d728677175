import { Button, Checkbox, Group, NativeSelect, Textarea, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { LANGUAGES, type Language } from '../../../core/forms';
import type { MatterBody, MatterView } from '../../../contract/assistant';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useAllServices } from '../../api/queries';
import { useDraft } from '../../api/useDraft';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useProblems } from '../../ui/useProblems';
import { BothLanguages } from '../../ui/BothLanguages';
import classes from './Matters.module.css';
import { Steps } from './Steps';
import { Trial } from './Trial';
import { TrialTalk } from './TrialTalk';

const NOTHING = { en: '', pt: '' };
const LEAST_PHRASINGS = 3;
const FRESH: MatterBody = {
  ...{ name: NOTHING, note: '', question: NOTHING, phrasings: [], serviceId: '' },
  ...{ isForAgents: false, isOn: true, steps: [{ kind: 'ticket' }] },
};

function bodyOf({ id: _, version: __, mayEdit: ___, ...body }: MatterView): MatterBody {
  return body;
}

/** A matter: how people put it, and what then happens, beside a trial of what is understood. */
export function MatterEditor({ matter, onSaved }: { matter: MatterView | null; onSaved(id: string): void }) {
  const { t, local } = useWords();
  const client = useQueryClient();
  const { data: services = [] } = useAllServices();
  const { data: articles = [] } = useQuery({
    queryKey: ['articles'],
    queryFn: () => call(api.knowledge.browse),
  });
  const version = matter?.version ?? 0;
  const [draft, setDraft, clear] = useDraft<MatterBody>(
    `matter:${matter?.id ?? 'new'}:${version}`,
    matter ? bodyOf(matter) : FRESH,
  );
  const isFixed = matter !== null && !matter.mayEdit;
  const set = (change: Partial<MatterBody>): void => setDraft({ ...draft, ...change });
  const save = useMutation({
    mutationFn: async () => {
      // Lines that are still empty are no phrasings.
      const phrasings = draft.phrasings.filter(({ text }) => text.trim() !== '');
      const body = { ...draft, phrasings };
      if (!matter) return (await call(api.assistant.create, { body, key: nanoid() })).id;
      await call(api.assistant.update, { params: { id: matter.id }, body: { ...body, version } });
      return matter.id;
    },
    onSuccess: async (id) => {
      clear();
      notifications.show({ message: t('assistant/workshop/saved', { name: local(draft.name) }) });
      await client.invalidateQueries({ queryKey: ['matters'] });
      onSaved(id);
    },
  });
  const problems = useProblems()(save.error);
  const linesOf = (language: Language): string =>
    draft.phrasings
      .filter((phrasing) => phrasing.language === language)
      .map(({ text }) => text)
      .join('\n');
  const setLines = (language: Language, text: string): void =>
    set({
      phrasings: [
        ...draft.phrasings.filter((phrasing) => phrasing.language !== language),
        ...text.split('\n').map((line) => ({ text: line, language })),
      ],
    });
  const count = draft.phrasings.filter(({ text }) => text.trim() !== '').length;
  return (
    <div className={classes.editor}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate();
        }}
      >
        <BothLanguages
          label={t('assistant/workshop/nameShown')}
          value={draft.name}
          isFixed={isFixed}
          onChange={(name) => set({ name })}
        />
        <div className={classes.pair}>
          {LANGUAGES.map((language) => (
            <Textarea
              key={language}
              autosize
              size="xs"
              minRows={6}
              maxRows={16}
              lang={language}
              label={`${t('assistant/workshop/phrasings')}, ${language}`}
              readOnly={isFixed}
              value={linesOf(language)}
              onChange={({ target }) => setLines(language, target.value)}
            />
          ))}
        </div>
        {(count < LEAST_PHRASINGS || problems.phrasings) && (
          <p className={classes.quiet}>{t('assistant/workshop/few')}</p>
        )}
        <BothLanguages
          label={t('assistant/workshop/question')}
          value={draft.question}
          isFixed={isFixed}
          onChange={(question) => set({ question })}
        />
        <div className={classes.pair}>
          <NativeSelect
            size="xs"
            label={t('assistant/workshop/service')}
            disabled={isFixed}
            value={draft.serviceId}
            error={problems.serviceId}
            data={[
              { value: '', label: t('common/choose') },
              ...services.map(({ id, title }) => ({ value: id, label: local(title) })),
            ]}
            onChange={({ target }) => set({ serviceId: target.value })}
          />
          <TextInput
            size="xs"
            label={t('assistant/workshop/note')}
            readOnly={isFixed}
            value={draft.note}
            onChange={({ target }) => set({ note: target.value })}
          />
        </div>
        <Steps
          steps={draft.steps}
          articles={articles}
          isFixed={isFixed}
          onChange={(steps) => set({ steps })}
        />
        <Group mt="md">
          <Checkbox
            size="xs"
            label={t('assistant/workshop/isOn')}
            disabled={isFixed}
            checked={draft.isOn}
            onChange={({ target }) => set({ isOn: target.checked })}
          />
          <Checkbox
            size="xs"
            label={t('assistant/workshop/forAgents')}
            disabled={isFixed}
            checked={draft.isForAgents}
            onChange={({ target }) => set({ isForAgents: target.checked })}
          />
          {!isFixed && (
            <Button type="submit" size="sm" ms="auto" loading={save.isPending}>
              {t('assistant/workshop/save')}
            </Button>
          )}
        </Group>
        {save.error && <ProblemNote error={save.error} />}
      </form>
      <Trial>
        <TrialTalk matterId={matter?.id ?? null} draft={draft} articles={articles} />
      </Trial>
    </div>
  );
}
