import { Button, Popover } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { TicketRow } from '../../contract/tickets';
import { listMoves, type MoveName } from '../../core/tickets';
import { call } from '../api/call';
import { useChanges } from '../api/changes';
import { api } from '../api/endpoints';
import { useWords } from '../messages/useWords';
import { MoveForm } from '../ui/MoveForm';
import { newMove, useMove } from '../ui/useMove';
import { Due } from './Card';
import classes from './Rooms.module.css';

const MOVES: MoveName[] = ['take', 'give', 'hold', 'resume', 'finish'];

/** A ticket of the team: what can be done with it, here. */
function Row({ row }: { row: TicketRow }) {
  const { t } = useWords();
  const [isOpen, setOpen] = useState(false);
  const [name, setName] = useState<MoveName | null>(null);
  const close = (): void => {
    setOpen(false);
    setName(null);
  };
  const movable = { number: row.number, version: row.version, teamId: row.team.id };
  const move = useMove(movable, close);
  const due = row.clocks.flatMap(({ state, dueAt }) =>
    state === 'running' && dueAt !== null ? [dueAt] : [],
  );
  const facts = { state: row.state, heldFor: row.heldFor, assigneeId: row.assignee?.id ?? null };
  const moves = listMoves(facts, 'agent').filter(
    (each) => MOVES.includes(each) && (each !== 'take' || row.assignee === null),
  );
  const isWithoutForm = (each: MoveName): boolean => each === 'take' || each === 'resume';
  return (
    <li>
      <Link to={`/desk/everything/${row.number}`}>
        <bdi>{row.title}</bdi>
      </Link>
      <p>
        <Popover
          opened={isOpen}
          onChange={(opened) => !opened && close()}
          width={320}
          withinPortal
          position="right-start"
          trapFocus
        >
          <Popover.Target>
            <button
              type="button"
              className={classes.whose}
              aria-label={`${t('rooms/act', { number: row.number })}: ${row.assignee?.name ?? t('rooms/nobody')}`}
              onClick={() => setOpen(!isOpen)}
            >
              {row.assignee?.name ?? t('rooms/nobody')}
            </button>
          </Popover.Target>
          <Popover.Dropdown>
            {name === null ? (
              <div className={classes.acts}>
                {moves.map((each) => (
                  <Button
                    key={each}
                    size="compact-sm"
                    variant="default"
                    onClick={() =>
                      isWithoutForm(each) ? move.mutate(newMove(movable, each, 'agent')) : setName(each)
                    }
                  >
                    {t(`moves/${each}`)}
                  </Button>
                ))}
              </div>
            ) : (
              <MoveForm
                {...{ ticket: movable, name, by: 'agent', requesterName: row.requester.name, onClose: close }}
              />
            )}
          </Popover.Dropdown>
        </Popover>
        {row.state === 'held'
          ? ` · ${t(`states/${row.state}`)}`
          : due.length > 0 && (
              <>
                {' '}
                · <Due dueAt={Math.min(...due)} />
              </>
            )}
      </p>
    </li>
  );
}

/** The open tickets of the team whose room it is. */
export function Board({ roomId }: { roomId: string }) {
  const { t } = useWords();
  const client = useQueryClient();
  const { data } = useQuery({
    queryKey: ['chatBoard', roomId],
    queryFn: () => call(api.chat.board, { params: { id: roomId } }),
  });
  useChanges(() => void client.invalidateQueries({ queryKey: ['chatBoard', roomId] }));
  if (!data) return null;
  return (
    <aside className={classes.board} aria-label={t('rooms/board')}>
      <h2>{t('rooms/board')}</h2>
      {data.rows.length === 0 && <p>{t('rooms/boardEmpty')}</p>}
      <ul>
        {data.rows.map((row) => (
          <Row key={row.number} row={row} />
        ))}
      </ul>
    </aside>
  );
}
