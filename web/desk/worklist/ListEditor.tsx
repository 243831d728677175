import { Alert, Button, Checkbox, Group, Modal, NativeSelect, TextInput } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { OwnWorklist } from '../../../contract/worklists';
import {
  CARD_FACTS,
  COLUMNS,
  GROUPINGS,
  MARKS,
  ORDERS,
  VIEWS,
  type BoardSettings,
  type Mark,
  type WorklistDefinition,
} from '../../../core/worklist';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useMe, useTeams } from '../../api/queries';
import { useDraft } from '../../api/useDraft';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useProblems } from '../../ui/useProblems';
import { ConditionEditor } from './ConditionEditor';
import classes from './ListEditor.module.css';

type Draft = { name: string; teamId: string | null; definition: WorklistDefinition };
type Props = {
  /** The list that is changed; null: a new one, from this definition. */
  own: OwnWorklist | null;
  from: WorklistDefinition;
  onClose(): void;
};

const MOST_COLUMNS = 8;

function ColumnsPart({
  definition,
  onChange,
}: {
  definition: WorklistDefinition;
  onChange(change: Partial<WorklistDefinition>): void;
}) {
  const { t } = useWords();
  const { columns, meanings } = definition;
  return (
    <div className={classes.columns}>
      {COLUMNS.map((name) => {
        const i = columns.indexOf(name);
        return [
          <Checkbox
            key={name}
            size="xs"
            label={t(`lists/columns/${name}`)}
            checked={i >= 0}
            disabled={i < 0 && columns.length >= MOST_COLUMNS}
            onChange={({ target }) =>
              onChange({
                columns: target.checked ? [...columns, name] : columns.filter((column) => column !== name),
              })
            }
          />,
          i >= 0 ? (
            <TextInput
              key={`${name}-means`}
              size="xs"
              aria-label={t('lists/means', { column: t(`lists/columns/${name}`) })}
              placeholder={t('lists/meansBlank')}
              value={meanings[name] ?? ''}
              onChange={({ target }) => onChange({ meanings: { ...meanings, [name]: target.value } })}
            />
          ) : (
            <span key={`${name}-means`} />
          ),
          i > 0 ? (
            <Button
              key={`${name}-up`}
              size="compact-xs"
              variant="subtle"
              aria-label={t('lists/forward', { column: t(`lists/columns/${name}`) })}
              onClick={() => onChange({ columns: columns.toSpliced(i, 1).toSpliced(i - 1, 0, name) })}
            >
              ↑
            </Button>
          ) : (
            <span key={`${name}-up`} />
          ),
        ];
      })}
    </div>
  );
}

/** What the cards of a board say, in the order in which it was chosen. */
function FactsPart({ board, onChange }: { board: BoardSettings; onChange(board: BoardSettings): void }) {
  const { t } = useWords();
  const { facts } = board;
  return (
    <Group gap="xs">
      {CARD_FACTS.map((name) => (
        <Checkbox
          key={name}
          size="xs"
          label={t(name === 'left' ? 'lists/timeLeft' : `lists/columns/${name}`)}
          checked={facts.includes(name)}
          onChange={({ target }) =>
            onChange({
              ...board,
              facts: target.checked ? [...facts, name] : facts.filter((fact) => fact !== name),
            })
          }
        />
      ))}
    </Group>
  );
}

type MarksProps = { marks: Mark[]; problems: Record<string, string>; onChange(marks: Mark[]): void };

function MarksPart({ marks, problems, onChange }: MarksProps) {
  const { t } = useWords();
  const put = (i: number, change: Partial<Mark>): void =>
    onChange(marks.with(i, { ...marks[i]!, ...change }));
  return (
    <>
      {marks.map((mark, i) => (
        <div key={i} className={classes.part}>
          <Group gap={6} wrap="nowrap" align="flex-start">
            <NativeSelect
              size="xs"
              aria-label={t('lists/look')}
              value={mark.look}
              data={MARKS.map((value) => ({ value, label: t(`lists/looks/${value}`) }))}
              onChange={({ target }) => put(i, { look: target.value as Mark['look'] })}
            />
            <TextInput
              size="xs"
              style={{ flex: 1 }}
              aria-label={t('lists/markMeans')}
              placeholder={t('lists/markMeans')}
              value={mark.means}
              error={problems[`definition.marks.${i}.means`]}
              onChange={({ target }) => put(i, { means: target.value })}
            />
            <Button size="compact-xs" variant="default" onClick={() => onChange(marks.toSpliced(i, 1))}>
              {t('lists/unmark')}
            </Button>
          </Group>
          <ConditionEditor
            condition={mark.condition}
            depth={1}
            onChange={(condition) => put(i, { condition })}
          />
        </div>
      ))}
      <Button
        size="compact-xs"
        variant="default"
        mt={6}
        onClick={() =>
          onChange([
            ...marks,
            { look: 'sea', means: '', condition: { all: [{ field: 'goesFirst', op: 'is', value: true }] } },
          ])
        }
      >
        {t('lists/addMark')}
      </Button>
    </>
  );
}

/** Makes or changes a worklist: a sentence of conditions, and how it is seen. What is typed is kept until it is saved. */
export function ListEditor({ own, from, onClose }: Props) {
  const { t, local } = useWords();
  const me = useMe();
  const client = useQueryClient();
  const navigate = useNavigate();
  const { data: teams = [] } = useTeams();
  const [draft, setDraft, clear] = useDraft<Draft>(`list:${own ? `${own.id}:${own.version}` : 'new'}`, {
    name: own?.name ?? '',
    teamId: own?.teamId ?? null,
    definition: own?.definition ?? from,
  });
  const [key] = useState(() => nanoid());
  const { definition } = draft;
  const set = (change: Partial<WorklistDefinition>): void =>
    setDraft({ ...draft, definition: { ...definition, ...change } });
  const renew = () => client.invalidateQueries({ queryKey: ['ownLists'] });
  const save = useMutation({
    mutationFn: async () => {
      if (!own) return call(api.worklists.create, { body: draft, key });
      await call(api.worklists.update, { params: { id: own.id }, body: { ...draft, version: own.version } });
      return { id: own.id };
    },
    onSuccess: async ({ id }) => {
      clear();
      await renew();
      onClose();
      await navigate(`/desk/${id}`);
    },
  });
  const remove = useMutation({
    mutationFn: () => call(api.worklists.remove, { params: { id: own!.id } }),
    onSuccess: async () => {
      clear();
      onClose();
      await navigate('/desk/nextUp');
      await renew();
    },
  });
  const problems = useProblems()(save.error);
  const own_ = teams.filter(({ members }) => members.some(({ id }) => id === me.id));
  const choice = (group: string, values: readonly string[]) =>
    values.map((value) => ({ value, label: t(`lists/${group}/${value}`) }));
  return (
    <Modal opened onClose={onClose} size="xl" title={t(own ? 'lists/change' : 'lists/make')}>
      {own?.isOrphaned && <Alert mb="sm">{t('lists/orphaned', { name: own.owner?.name ?? '' })}</Alert>}
      <Group grow align="flex-start">
        <TextInput
          label={t('lists/name')}
          data-autofocus
          value={draft.name}
          error={problems.name}
          onChange={({ target }) => setDraft({ ...draft, name: target.value })}
        />
        <NativeSelect
          label={t('lists/sharedWith')}
          value={draft.teamId ?? ''}
          data={[
            { value: '', label: t('lists/justMe') },
            ...own_.map(({ id, name }) => ({ value: id, label: local(name) })),
          ]}
          onChange={({ target }) => setDraft({ ...draft, teamId: target.value || null })}
        />
      </Group>
      <section className={classes.part}>
        <h3>{t('lists/whichWork')}</h3>
        <ConditionEditor condition={definition.condition} onChange={(condition) => set({ condition })} />
      </section>
      <section className={classes.part}>
        <h3>{t('lists/howSeen')}</h3>
        <Group grow>
          <NativeSelect
            label={t('lists/seenAs')}
            value={definition.seenAs}
            data={choice('views', VIEWS)}
            onChange={({ target }) => set({ seenAs: target.value as never })}
          />
          <NativeSelect
            label={t('lists/orderedBy')}
            value={definition.order}
            data={choice('orders', ORDERS)}
            onChange={({ target }) => set({ order: target.value as never })}
          />
          <NativeSelect
            label={t('lists/groupedBy')}
            value={definition.groupBy ?? ''}
            data={[{ value: '', label: t('lists/groups/none') }, ...choice('groups', GROUPINGS)]}
            onChange={({ target }) => set({ groupBy: (target.value || null) as never })}
          />
        </Group>
      </section>
      <section className={classes.part}>
        <h3>{t('lists/whichColumns')}</h3>
        <ColumnsPart definition={definition} onChange={set} />
      </section>
      <section className={classes.part}>
        <h3>{t('lists/whichFacts')}</h3>
        <FactsPart board={definition.board} onChange={(board) => set({ board })} />
      </section>
      <section className={classes.part}>
        <h3>{t('lists/marks')}</h3>
        <p className={classes.quiet}>{t('lists/marksLead')}</p>
        <MarksPart marks={definition.marks} problems={problems} onChange={(marks) => set({ marks })} />
      </section>
      {save.error && !problems.name && <ProblemNote error={save.error} />}
      <ProblemNote error={remove.error} />
      <Group mt="lg">
        <Button loading={save.isPending} onClick={() => save.mutate()}>
          {t('common/save')}
        </Button>
        <Button variant="default" onClick={onClose}>
          {t('common/cancel')}
        </Button>
        {own && (
          <Button variant="subtle" ms="auto" loading={remove.isPending} onClick={() => remove.mutate()}>
            {t('lists/remove', { name: own.name })}
          </Button>
        )}
      </Group>
    </Modal>
  );
}
