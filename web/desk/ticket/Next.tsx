import { Button, Group } from '@mantine/core';
import { useState } from 'react';
import type { Ticket } from '../../../contract/tickets';
import { getStateSentence, type MoveName } from '../../../core/tickets';
import { useDraft } from '../../api/useDraft';
import { useWords } from '../../messages/useWords';
import { Conflict } from '../../ui/Conflict';
import { MoveForm } from '../../ui/MoveForm';
import { ProblemNote } from '../../ui/ProblemNote';
import { useKeys } from '../../ui/useKeys';
import { newMove, useMove } from '../../ui/useMove';
import { ApiProblem } from '../../api/call';
import { useAsks, useMe } from '../../api/queries';
import { Decision } from '../../ask/home/Decision';
import classes from './DeskTicket.module.css';

/** Moves without a form are made at once. */
const AT_ONCE = new Set<MoveName>(['take', 'resume']);
const ORDER: MoveName[] = ['take', 'resume', 'finish', 'hold', 'give', 'reopen', 'withdraw'];

/** What happens next, who must move, and the buttons for what may be done now. */
export function Next({ ticket }: { ticket: Ticket }) {
  const { t, local } = useWords();
  const me = useMe();
  const { data: asks = [] } = useAsks();
  // A form that is half filled in is open again when one comes back to it.
  const [left, setOpen] = useDraft<MoveName | null>(`moving:${ticket.number}`, null);
  const { assignee, team, requester, approvals, isDeclined } = ticket;
  const approverNames = approvals
    .filter(({ outcome }) => outcome === 'open')
    .flatMap((approval) => approval.asks.filter(({ decision }) => !decision).map(({ asked }) => asked.name));
  const { code, params } = getStateSentence({
    ...ticket,
    approverNames,
    assigneeName: assignee?.name ?? null,
    teamName: local(team.name),
  });
  const allowed = new Set(ticket.moves.filter(({ by }) => by === 'agent').map(({ name }) => name));
  const shown = ORDER.filter((name) => allowed.has(name) && !(name === 'take' && assignee?.id === me.id));
  const open = left !== null && shown.includes(left) ? left : null;
  const movable = { number: ticket.number, version: ticket.version };
  const atOnce = useMove(movable);
  const isStale = atOnce.error instanceof ApiProblem && atOnce.error.code === 'stale';
  const [isOpenedNow, setOpenedNow] = useState(false);
  const start = (name: MoveName): void => {
    if (AT_ONCE.has(name)) atOnce.mutate(newMove(movable, name, 'agent'));
    else {
      setOpenedNow(true);
      setOpen(name);
    }
  };
  const onKey = (name: MoveName) => (shown.includes(name) ? () => start(name) : undefined);
  useKeys({ t: onKey('take'), h: onKey('hold'), d: onKey('finish'), g: onKey('give') });
  const isMain = (name: MoveName): boolean =>
    name === shown[0] || (name === 'finish' && assignee?.id === me.id);
  return (
    <section aria-label={t('page/next')}>
      <h2>{t('page/next')}</h2>
      {asks
        .filter(({ number }) => number === ticket.number)
        .map((ask) => (
          <Decision key={ask.id} ask={ask} isChosen={false} onChoose={null} />
        ))}
      <p className={classes.next}>
        {t(`page/nextText/${isDeclined ? 'declined' : code}`, { ...params, requester: requester.name })}
      </p>
      {open === null ? (
        <Group gap={6}>
          {shown.map((name) => (
            <Button
              key={name}
              size="xs"
              variant={isMain(name) ? 'filled' : name === 'withdraw' ? 'subtle' : 'default'}
              loading={atOnce.isPending && atOnce.variables.name === name}
              onClick={() => start(name)}
            >
              {t(`moves/${name}`)}
            </Button>
          ))}
        </Group>
      ) : (
        <MoveForm
          key={open}
          ticket={movable}
          name={open}
          by="agent"
          requesterName={requester.name}
          takesFocus={isOpenedNow}
          onClose={() => setOpen(null)}
        />
      )}
      {atOnce.error && !isStale && <ProblemNote error={atOnce.error} />}
      <Conflict
        error={atOnce.error}
        onKeepTheirs={() => atOnce.reset()}
        onPutMine={() => atOnce.mutate(newMove(movable, atOnce.variables!.name, 'agent'))}
      />
    </section>
  );
}
