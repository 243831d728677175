import { ActionIcon, Menu } from '@mantine/core';
import { IconChartBar, IconDownload, IconTable } from '@tabler/icons-react';
import { lazy, Suspense, useMemo, useRef, useState, type ReactNode } from 'react';
import type { AskedChart, Board, ChartAnswer } from '../../../contract/measures';
import type { Scalar } from '../../../core/conditions';
import type { Chart } from '../../../core/measures';
import '../../messages/boardsWords';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import { Waiting } from '../../ui/Waiting';
import { isDrawn, pointAt, toOption, type ChartSayings, type Point } from '../chart/options';
import { useColours } from '../chart/useColours';
import { Behind } from './Behind';
import classes from './Boards.module.css';
import { CourseTable } from './CourseTable';
import { savePicture, toFile } from './files';
import { AgeList, BarList, BigNumber, FigureTable } from './Plain';
import { useChart } from './queries';
import { Said } from './Said';
import { useChartName, useChartWords } from './useChartWords';

const EChart = lazy(() => import('../chart/EChart'));

/** A Monday, to name the days of the week from. */
const MONDAY = Date.UTC(2026, 0, 5);
const DAY = 86_400_000;

function useSayings(chart: Chart, zone: string): ChartSayings {
  const { t } = useWords();
  const times = useTimes();
  const { figure, bucket, valueName, numbers, span } = useChartWords();
  return {
    figure: (value) => figure(chart, value),
    bucket: (at) => bucket(at, chart.every ?? 'hour', { zone }),
    value: (key, name) => (chart.by === null ? '' : valueName(chart.by, key, name)),
    number: (value) => numbers.format(value),
    ...{ span, t: (key) => t(key) },
    weekdays: Array.from({ length: 7 }, (_, i) => times.weekday(MONDAY + i * DAY + DAY / 2)),
  };
}

/** A chart that the library of charts draws. */
function Drawing({
  chart,
  answer,
  label,
  onOpen,
}: {
  chart: Chart;
  answer: ChartAnswer;
  label: string;
  onOpen(point: Point): void;
}) {
  const colours = useColours();
  const says = useSayings(chart, answer.zone);
  const { language } = useWords();
  const option = useMemo(
    () => toOption({ chart, answer, says, colours }),
    // What it says rests on the language alone.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [chart, answer, colours, language],
  );
  return (
    <div className={classes.drawing}>
      <Suspense fallback={<Waiting />}>
        <EChart
          option={option}
          label={label}
          onClick={(clicked) => {
            const point = pointAt(chart, answer, clicked);
            if (point) onOpen(point);
          }}
        />
      </Suspense>
    </div>
  );
}

function Figures({
  isTable,
  label,
  ...props
}: {
  chart: Chart;
  answer: ChartAnswer;
  isTable: boolean;
  label: string;
  chosen: Scalar[];
  onChoose(key: Scalar): void;
  onOpen(point: Point): void;
}) {
  const { t } = useWords();
  const { chart, answer } = props;
  const isEmpty = answer.count === 0 && chart.show !== 'number' && chart.show !== 'expected';
  if (isEmpty) return <p className={classes.said}>{t('boards/nothing')}</p>;
  if (chart.show === 'number') return <BigNumber {...props} />;
  if (chart.show === 'ageing') return <AgeList {...props} />;
  if (isTable && answer.course) return <CourseTable chart={chart} answer={answer} />;
  if (chart.show === 'table' || isTable) return <FigureTable {...props} />;
  return isDrawn(chart) ? (
    <>
      <Drawing {...props} label={label} />
      <Said chart={chart} answer={answer} />
    </>
  ) : (
    <BarList {...props} />
  );
}

/** The charts of a board as far as they narrow each other. */
export const asBeside = (charts: Chart[]): AskedChart['beside'] =>
  charts.map(({ id, by, of }) => ({ id, by, of }));

/** A chart on its board: its name, what it says, and the figures, each of which opens what it counts. */
export function ChartCard({
  chart,
  board,
  chosen,
  onChoose,
  children,
}: {
  chart: Chart;
  board: Pick<Board, 'charts' | 'stretch'> & { problems?: Board['problems'] };
  chosen: Record<string, Scalar[]>;
  onChoose(key: Scalar): void;
  /** What one can do with it while the board is changed. */
  children?: ReactNode;
}) {
  const { t } = useWords();
  const { sentence, fieldName } = useChartWords();
  const card = useRef<HTMLElement>(null);
  const [isTable, setTable] = useState(false);
  const [opened, setOpened] = useState<Point | null>(null);
  const problems = board.problems?.[chart.id] ?? [];
  const asked: AskedChart = { chart, stretch: board.stretch, beside: asBeside(board.charts), chosen };
  const { data, error, refetch } = useChart(asked, problems.length === 0);
  const said = sentence(chart, board.stretch);
  const name = useChartName()(chart);
  const canBeTable = data !== undefined && !['number', 'table', 'ageing'].includes(chart.show);
  return (
    <section ref={card} className={classes.card} aria-label={name ?? said}>
      <header>
        <h2>{name ?? said}</h2>
        <span className={classes.tools}>
          {children}
          {canBeTable && (
            <ActionIcon
              variant="subtle"
              color="gray"
              size="sm"
              aria-label={t(isTable ? 'boards/asChart' : 'boards/asTable')}
              title={t(isTable ? 'boards/asChart' : 'boards/asTable')}
              onClick={() => setTable(!isTable)}
            >
              {isTable ? <IconChartBar size={15} /> : <IconTable size={15} />}
            </ActionIcon>
          )}
          <Menu position="bottom-end">
            <Menu.Target>
              <ActionIcon
                variant="subtle"
                color="gray"
                size="sm"
                aria-label={t('boards/file')}
                title={t('boards/file')}
              >
                <IconDownload size={15} />
              </ActionIcon>
            </Menu.Target>
            <Menu.Dropdown>
              {(['csv', 'xlsx', 'json'] as const).map((as) => (
                <Menu.Item key={as} component="a" href={toFile(asked, as, 'figures')} download>
                  {t(`boards/files/${as}`)}
                </Menu.Item>
              ))}
              {isDrawn(chart) && !isTable && (
                <Menu.Item
                  onClick={() => {
                    const drawing = card.current?.querySelector<SVGElement>(`.${classes.drawing} svg`);
                    if (drawing) savePicture(drawing, chart.id);
                  }}
                >
                  {t('boards/files/svg')}
                </Menu.Item>
              )}
            </Menu.Dropdown>
          </Menu>
        </span>
      </header>
      {name !== null && <p className={classes.sentence}>{said}</p>}
      {problems.length > 0 && (
        <p role="alert">
          {t('boards/gone', { fields: problems.map(({ field }) => fieldName(field)).join(', ') })}
        </p>
      )}
      <ProblemNote error={error} onRetry={() => void refetch()} />
      {!data && !error && problems.length === 0 && <Waiting />}
      {data && !error && (
        <Figures
          {...{ chart, isTable, onChoose }}
          answer={data}
          label={said}
          chosen={chosen[chart.id] ?? []}
          onOpen={setOpened}
        />
      )}
      {data?.isGathering && <p className={classes.said}>{t('boards/gathering')}</p>}
      {opened && <Behind asked={asked} point={opened} onClose={() => setOpened(null)} />}
    </section>
  );
}
