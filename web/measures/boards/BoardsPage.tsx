import { Button } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { Link, useNavigate } from 'react-router';
import type { BoardCard } from '../../../contract/measures';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useMe } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { Lost } from '../../ui/Lost';
import { ProblemNote } from '../../ui/ProblemNote';
import { Waiting } from '../../ui/Waiting';
import workshop from '../../workshop/Workshop.module.css';
import { MeasuresNav } from '../MeasuresNav';
import classes from './Boards.module.css';
import { useBoardChanged, useBoards } from './queries';
import { useBoardName } from './useChartWords';

function Card({ board }: { board: BoardCard }) {
  const { t } = useWords();
  const boardName = useBoardName();
  const { id, isGiven, owner, isShared, charts } = board;
  return (
    <li>
      <Link to={`/measures/boards/${id}`}>
        <strong>
          <bdi>{boardName(board)}</bdi>
        </strong>
        <small>
          {isGiven
            ? t(`boards/about/${id.slice('given-'.length)}`)
            : [
                t('boards/charts', { count: charts }),
                owner && t('boards/byWhom', { name: owner.name }),
                isShared && t('boards/shared'),
              ]
                .filter(Boolean)
                .join(' · ')}
        </small>
      </Link>
    </li>
  );
}

/** The boards that there are to look at. */
export function BoardsPage() {
  const { t } = useWords();
  const me = useMe();
  const go = useNavigate();
  const { data, error, refetch } = useBoards();
  const changed = useBoardChanged();
  const make = useMutation({
    mutationFn: () =>
      call(api.measures.createBoard, {
        body: {
          ...{ name: t('boards/newName'), teamIds: [], isForAll: false, charts: [] },
          stretch: { last: 4, unit: 'week' as const },
        },
        key: nanoid(),
      }),
    onSuccess: async ({ id }) => {
      await changed(null);
      await go(`/measures/boards/${id}?change=1`);
    },
  });
  if (!me.areas.includes('measures')) return <Lost />;
  const own = data?.filter(({ isGiven }) => !isGiven) ?? [];
  return (
    <div className={workshop.page}>
      <MeasuresNav />
      <ProblemNote error={error} onRetry={() => void refetch()} />
      {!data && !error && <Waiting />}
      {data && (
        <>
          <ul className={classes.boards} aria-label={t('boards/given')}>
            {data
              .filter(({ isGiven }) => isGiven)
              .map((board) => (
                <Card key={board.id} board={board} />
              ))}
          </ul>
          <h2>{t('boards/own')}</h2>
          {own.length === 0 && <p className={workshop.lead}>{t('boards/noneOwn')}</p>}
          <ul className={classes.boards}>
            {own.map((board) => (
              <Card key={board.id} board={board} />
            ))}
          </ul>
          <ProblemNote error={make.error} />
          <Button variant="default" loading={make.isPending} onClick={() => make.mutate()}>
            {t('boards/new')}
          </Button>
        </>
      )}
    </div>
  );
}
