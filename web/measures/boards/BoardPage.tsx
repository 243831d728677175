import { Button, Group, NativeSelect } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import type { Board } from '../../../contract/measures';
import type { Scalar } from '../../../core/conditions';
import { call } from '../../api/call';
import { useNow } from '../../api/clock';
import { api } from '../../api/endpoints';
import { useMe } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { Lost } from '../../ui/Lost';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import { Waiting } from '../../ui/Waiting';
import workshop from '../../workshop/Workshop.module.css';
import { MeasuresNav } from '../MeasuresNav';
import { BoardEditor } from './BoardEditor';
import classes from './Boards.module.css';
import { ChartCard } from './ChartCard';
import { useBoard, useBoardChanged } from './queries';
import { STRETCHES, toStretch } from './stretches';
import { useBoardName, useChartName, useChartWords } from './useChartWords';
import { useChosen, type Chosen } from './useChosen';

/** What the charts are narrowed to, as words that can be taken away. */
function Narrowed({
  board,
  chosen,
  onTake,
  onClear,
}: {
  board: Board;
  chosen: Chosen;
  onTake(id: string, key: Scalar): void;
  onClear(): void;
}) {
  const { t } = useWords();
  const { valueName, fieldName } = useChartWords();
  const choices = board.charts.flatMap(({ id, by }) =>
    by === null ? [] : (chosen[id] ?? []).map((key) => ({ id, by, key })),
  );
  if (choices.length === 0) return null;
  return (
    <div className={classes.chosen}>
      <span>{t('boards/narrowed')}</span>
      {choices.map(({ id, by, key }) => {
        const what = `${fieldName(by)}: ${valueName(by, key)}`;
        return (
          <Button
            key={`${id} ${JSON.stringify(key)}`}
            size="compact-sm"
            variant="light"
            aria-label={t('boards/widen', { what })}
            onClick={() => onTake(id, key)}
          >
            {what} ×
          </Button>
        );
      })}
      {choices.length > 1 && (
        <Button size="compact-sm" variant="subtle" onClick={onClear}>
          {t('boards/widenAll')}
        </Button>
      )}
    </div>
  );
}

/** A board as it is looked at: of which stretch, narrowed to what, and its charts. */
function Looked({ board }: { board: Board }) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const { stretch: say } = useChartWords();
  const { chosen, stretch, toggle, clear, setStretch } = useChosen();
  const seen = { ...board, stretch: stretch ?? board.stretch };
  const { last, unit } = seen.stretch;
  const offered = STRETCHES.some((each) => each.last === last && each.unit === unit)
    ? STRETCHES
    : [seen.stretch, ...STRETCHES];
  return (
    <>
      <Group mb="sm">
        <NativeSelect
          aria-label={t('boards/stretch')}
          value={`${last} ${unit}`}
          data={offered.map((each) => ({ value: `${each.last} ${each.unit}`, label: say(each) }))}
          onChange={({ target }) => setStretch(toStretch(target.value)!)}
        />
      </Group>
      <Narrowed board={board} chosen={chosen} onTake={toggle} onClear={clear} />
      {board.charts.length === 0 && <p>{t('boards/empty')}</p>}
      <ul className={classes.grid}>
        {board.charts.map((chart) => (
          <li key={chart.id} className={classes[`w${chart.width}`]}>
            <ChartCard chart={chart} board={seen} chosen={chosen} onChoose={(key) => toggle(chart.id, key)} />
          </li>
        ))}
      </ul>
      <p className={classes.foot}>{t('boards/current', { at: times.when(now, now) })}</p>
    </>
  );
}

/** A board in its page, or alone on a wall. */
export function BoardPage() {
  const { t } = useWords();
  const me = useMe();
  const go = useNavigate();
  const { id = '' } = useParams();
  const [search, setSearch] = useSearchParams();
  const { isWall, setWall } = useChosen();
  const boardName = useBoardName();
  const chartName = useChartName();
  const { data: board, error, refetch } = useBoard(id);
  const changed = useBoardChanged();
  const copy = useMutation({
    mutationFn: ({ charts, stretch, ...given }: Board) =>
      call(api.measures.createBoard, {
        body: {
          ...{ name: t('boards/copyOf', { name: boardName(given) }), teamIds: [], isForAll: false },
          stretch,
          // Its charts keep the names that they have here.
          charts: charts.map((chart) => ({ ...chart, title: chartName(chart) ?? '' })),
        },
        key: nanoid(),
      }),
    onSuccess: async ({ id: made }) => {
      await changed(null);
      notifications.show({ message: t('boards/copied') });
      await go(`/measures/boards/${made}?change=1`);
    },
  });
  if (!me.areas.includes('measures')) return <Lost />;
  const isChanging = search.has('change') && board?.mayChange === true;
  return (
    <div className={isWall ? classes.wall : workshop.page}>
      {!isWall && <MeasuresNav />}
      <ProblemNote error={error} onRetry={() => void refetch()} />
      {!board && !error && <Waiting />}
      {board && (
        <>
          <Group justify="space-between" mb="sm">
            <h2>
              <bdi>{boardName(board)}</bdi>
            </h2>
            <Group gap="xs">
              {!isWall && !isChanging && board.mayChange && (
                <Button size="xs" variant="default" onClick={() => setSearch({ change: '1' })}>
                  {t('boards/change')}
                </Button>
              )}
              {!isWall && !isChanging && (
                <Button
                  size="xs"
                  variant="default"
                  loading={copy.isPending}
                  onClick={() => copy.mutate(board)}
                >
                  {t('boards/copy')}
                </Button>
              )}
              {!isChanging && (
                <Button size="xs" variant="default" onClick={() => setWall(!isWall)}>
                  {t(isWall ? 'boards/leaveWall' : 'boards/wall')}
                </Button>
              )}
            </Group>
          </Group>
          <ProblemNote error={copy.error} />
          {isChanging ? (
            <BoardEditor key={board.id} board={board} onReady={() => setSearch({})} />
          ) : (
            <Looked board={board} />
          )}
        </>
      )}
    </div>
  );
}
