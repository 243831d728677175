import { Button, Popover } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { TicketRow } from '../../contract/tickets';
import { tightestClock } from '../../core/targets';
import { listMoves, type MoveName } from '../../core/tickets';
import { call } from '../api/call';
import { useChanges } from '../api/changes';
import { renewSoon } from '../api/renew';
import { api } from '../api/endpoints';
import { useWords } from '../messages/useWords';
import { PriorityEditor, WhoEditor } from '../desk/worklist/CellEditor';
import { MoveForm } from '../ui/MoveForm';
import { ProblemNote } from '../ui/ProblemNote';
import { newMove, useMove } from '../ui/useMove';
import { Due } from './Card';
import classes from './Rooms.module.css';

const MOVES: MoveName[] = ['take', 'give', 'hold', 'resume', 'finish'];

type Value = 'priority' | 'who' | 'state';

/** The moves that the ticket allows now; those that ask for something open their form. */
function Moves({ row, onClose }: { row: TicketRow; onClose(): void }) {
  const { t } = useWords();
  const [name, setName] = useState<MoveName | null>(null);
  const movable = { number: row.number, version: row.version, teamId: row.team.id };
  const move = useMove(movable, onClose);
  const facts = { state: row.state, heldFor: row.heldFor, assigneeId: row.assignee?.id ?? null };
  const moves = listMoves(facts, 'agent').filter(
    (each) => MOVES.includes(each) && (each !== 'take' || row.assignee === null),
  );
  const isWithoutForm = (each: MoveName): boolean => each === 'take' || each === 'resume';
  if (name !== null)
    return (
      <MoveForm {...{ ticket: movable, name, by: 'agent', requesterName: row.requester.name, onClose }} />
    );
  return (
    <>
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
      <ProblemNote error={move.error} />
    </>
  );
}

const EDITORS = { priority: PriorityEditor, who: WhoEditor, state: Moves };

/** Something of a ticket that is changed where it stands. */
function Changed({ row, value, text }: { row: TicketRow; value: Value; text: string }) {
  const { t } = useWords();
  const [isOpen, setOpen] = useState(false);
  const Editor = EDITORS[value];
  const name = t('rooms/change', { what: t(`rooms/values/${value}`), number: row.number });
  return (
    <Popover opened={isOpen} onChange={setOpen} width={320} withinPortal position="right-start" trapFocus>
      <Popover.Target>
        <button
          type="button"
          className={classes.whose}
          aria-label={`${name}: ${text}`}
          onClick={() => setOpen(!isOpen)}
        >
          {text}
        </button>
      </Popover.Target>
      <Popover.Dropdown aria-label={name}>
        <Editor row={row} onClose={() => setOpen(false)} />
      </Popover.Dropdown>
    </Popover>
  );
}

/** A ticket of the team: what can be done with it, here. */
function Row({ row }: { row: TicketRow }) {
  const { t } = useWords();
  const clock = tightestClock(row.clocks);
  return (
    <li>
      <Link to={`/desk/everything/${row.number}`}>
        <bdi>{row.title}</bdi>
      </Link>
      <p className={classes.values}>
        <Changed row={row} value="priority" text={row.priority} />
        <Changed row={row} value="who" text={row.assignee?.name ?? t('rooms/nobody')} />
        <Changed row={row} value="state" text={t(`states/${row.state}`)} />
        {clock && <Due clock={clock} />}
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
  useChanges(() => renewSoon(client, ['chatBoard', roomId]));
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
