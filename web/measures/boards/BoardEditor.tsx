import { ActionIcon, Button, Group, MultiSelect, NativeSelect, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { IconPencil, IconX } from '@tabler/icons-react';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { Board } from '../../../contract/measures';
import type { Chart } from '../../../core/measures';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { SortableItem, SortableList } from '../../ui/Sortable';
import classes from './Boards.module.css';
import { ChartCard } from './ChartCard';
import { ChartEditor } from './ChartEditor';
import { newChart } from './edit';
import { useBoardChanged } from './queries';
import { STRETCHES, toStretch } from './stretches';
import { useChartWords } from './useChartWords';

const WIDTHS = [3, 4, 6, 8, 12] as const;

/** What is kept of a board that was not saved yet, over a reload. */
const draftName = ({ id, version }: Board): string => `listo.board.${id}.${version}`;

function readDraft(board: Board): Board {
  try {
    const draft = JSON.parse(sessionStorage.getItem(draftName(board)) ?? 'null') as Partial<Board> | null;
    return draft ? { ...board, ...draft } : board;
  } catch {
    return board;
  }
}

/** Name, stretch and sharing. */
function Head({ board, onChange }: { board: Board; onChange(board: Board): void }) {
  const { t, local } = useWords();
  const { stretch: say } = useChartWords();
  const { data: teams = [] } = useTeams();
  const { name, stretch, teamIds, isForAll } = board;
  const [withTeams, setWithTeams] = useState(teamIds.length > 0);
  const sharing = isForAll ? 'withAll' : withTeams ? 'withTeams' : 'withNobody';
  return (
    <div className={classes.editor}>
      <TextInput
        label={t('boards/name')}
        value={name}
        maxLength={200}
        onChange={({ target }) => onChange({ ...board, name: target.value })}
      />
      <NativeSelect
        label={t('boards/stretch')}
        value={`${stretch.last} ${stretch.unit}`}
        data={STRETCHES.map((each) => ({ value: `${each.last} ${each.unit}`, label: say(each) }))}
        onChange={({ target }) => onChange({ ...board, stretch: toStretch(target.value)! })}
      />
      <NativeSelect
        label={t('boards/sharing')}
        value={sharing}
        data={(['withNobody', 'withTeams', 'withAll'] as const).map((value) => ({
          value,
          label: t(`boards/${value}`),
        }))}
        onChange={({ target }) => {
          setWithTeams(target.value === 'withTeams');
          onChange({ ...board, isForAll: target.value === 'withAll', teamIds: [] });
        }}
      />
      {sharing === 'withTeams' && (
        <MultiSelect
          label={t('boards/teams')}
          value={teamIds}
          data={teams.map(({ id, name: team }) => ({ value: id, label: local(team) }))}
          onChange={(ids) => onChange({ ...board, teamIds: ids })}
        />
      )}
    </div>
  );
}

/** What one can do with a chart on a board that is changed. */
function ChartTools({
  chart,
  onChange,
  onEdit,
  onRemove,
}: {
  chart: Chart;
  onChange(chart: Chart): void;
  onEdit(): void;
  onRemove(): void;
}) {
  const { t } = useWords();
  return (
    <>
      <NativeSelect
        size="xs"
        aria-label={t('boards/width')}
        value={String(chart.width)}
        data={WIDTHS.map((width) => ({ value: String(width), label: t(`boards/widths/w${width}`) }))}
        onChange={({ target }) => onChange({ ...chart, width: Number(target.value) as Chart['width'] })}
      />
      <ActionIcon variant="subtle" color="gray" size="sm" aria-label={t('boards/editChart')} onClick={onEdit}>
        <IconPencil size={15} />
      </ActionIcon>
      <ActionIcon
        variant="subtle"
        color="gray"
        size="sm"
        aria-label={t('boards/removeChart')}
        onClick={onRemove}
      >
        <IconX size={15} />
      </ActionIcon>
    </>
  );
}

function useKeeping(board: Board, onReady: () => void) {
  const { t } = useWords();
  const go = useNavigate();
  const changed = useBoardChanged();
  const save = useMutation({
    mutationFn: (draft: Board) => {
      const { name, teamIds, isForAll, stretch, charts, version } = draft;
      const body = { name: name.trim(), teamIds, isForAll, stretch, charts, version };
      return call(api.measures.updateBoard, { params: { id: board.id }, body, key: nanoid() });
    },
    onSuccess: async ({ version }, draft) => {
      sessionStorage.removeItem(draftName(board));
      await changed({ ...draft, version, problems: {} });
      notifications.show({ message: t('boards/saved') });
      onReady();
    },
  });
  const remove = useMutation({
    mutationFn: () => call(api.measures.removeBoard, { params: { id: board.id }, key: nanoid() }),
    onSuccess: async () => {
      await changed(null);
      notifications.show({ message: t('boards/removed') });
      await go('/measures/boards');
    },
  });
  return { save, remove };
}

/** A board that is being changed: charts are dragged, sized, changed, added and taken out; nothing is kept until it is said. */
export function BoardEditor({ board, onReady }: { board: Board; onReady(): void }) {
  const { t } = useWords();
  const { sentence } = useChartWords();
  const [draft, setDraft] = useState(() => readDraft(board));
  const [edited, setEdited] = useState<Chart | null>(null);
  const { save, remove } = useKeeping(board, onReady);
  function change(next: Board): void {
    const { name, teamIds, isForAll, stretch, charts } = next;
    sessionStorage.setItem(draftName(board), JSON.stringify({ name, teamIds, isForAll, stretch, charts }));
    setDraft(next);
  }
  const put = (chart: Chart): void =>
    change({
      ...draft,
      charts: draft.charts.some(({ id }) => id === chart.id)
        ? draft.charts.map((each) => (each.id === chart.id ? chart : each))
        : [...draft.charts, chart],
      problems: Object.fromEntries(Object.entries(draft.problems).filter(([id]) => id !== chart.id)),
    });
  function leave(): void {
    sessionStorage.removeItem(draftName(board));
    onReady();
  }
  return (
    <>
      <Head board={draft} onChange={change} />
      <Group my="sm">
        <Button
          loading={save.isPending}
          disabled={draft.name.trim() === ''}
          onClick={() => save.mutate(draft)}
        >
          {t('boards/ready')}
        </Button>
        <Button variant="default" onClick={() => setEdited(newChart())}>
          {t('boards/add')}
        </Button>
        <Button variant="subtle" onClick={leave}>
          {t('common/cancel')}
        </Button>
        <Button variant="subtle" color="red" loading={remove.isPending} onClick={() => remove.mutate()}>
          {t('boards/remove')}
        </Button>
      </Group>
      <ProblemNote error={save.error ?? remove.error} />
      {draft.charts.length === 0 && <p>{t('boards/empty')}</p>}
      <SortableList
        isGrid
        ids={draft.charts.map(({ id }) => id)}
        onOrder={(ids) =>
          change({ ...draft, charts: ids.map((id) => draft.charts.find((chart) => chart.id === id)!) })
        }
      >
        <ul className={classes.grid}>
          {draft.charts.map((chart) => (
            <SortableItem
              key={chart.id}
              isGrid
              id={chart.id}
              className={classes[`w${chart.width}`]}
              label={chart.title || sentence(chart, draft.stretch)}
              isFixed={false}
            >
              {(grip) => (
                <ChartCard chart={chart} board={draft} chosen={{}} onChoose={() => undefined}>
                  {grip}
                  <ChartTools
                    chart={chart}
                    onChange={put}
                    onEdit={() => setEdited(chart)}
                    onRemove={() =>
                      change({ ...draft, charts: draft.charts.filter(({ id }) => id !== chart.id) })
                    }
                  />
                </ChartCard>
              )}
            </SortableItem>
          ))}
        </ul>
      </SortableList>
      {edited && (
        <ChartEditor
          chart={edited}
          board={draft}
          onKeep={(chart) => {
            put(chart);
            setEdited(null);
          }}
          onClose={() => setEdited(null)}
        />
      )}
    </>
  );
}
