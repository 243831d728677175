import { Button, Checkbox, Group, Menu, TextInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { Link } from 'react-router';
import type { PlanStepView } from '../../contract/plans';
import type { StepMove } from '../../core/plans';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import { useMe, useRenew } from '../api/queries';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import classes from './Plan.module.css';

type Made = { name: StepMove; reason?: string; ticked?: number[] };

function useStepMove(number: number, step: PlanStepView) {
  const renew = useRenew();
  return useMutation({
    mutationFn: (made: Made) =>
      call(api.plans.move, {
        params: { number, stepId: step.id },
        body: { version: step.version, ...made },
        key: nanoid(),
      }),
    onSettled: () => renew(number),
  });
}

/** What may be done with a step now: its list to tick, and the moves that its rules allow. */
export function StepActions({ number, step }: { number: number; step: PlanStepView }) {
  const { t, local } = useWords();
  const me = useMe();
  const move = useStepMove(number, step);
  const [reason, setReason] = useState<string | null>(null);
  const may = (name: StepMove): boolean => step.moves.includes(name);
  const ticked = step.checklist.flatMap(({ isTicked }, i) => (isTicked ? [i] : []));
  const isMine = step.assignee?.id === me.id;
  const shown = (['take', 'finish'] as const).filter(
    (name) => may(name) && !(name === 'take' && isMine) && step.kind !== 'ranking',
  );
  const more = (['leaveOut', 'redo'] as const).filter(may);
  const start = (name: StepMove): void => (name === 'leaveOut' ? setReason('') : move.mutate({ name }));
  // What is ranked goes ahead where it is seen among the others.
  const isRanked = step.kind === 'ranking' && step.state === 'active' && step.team !== null;
  if (shown.length + more.length === 0 && !isRanked) return null;
  return (
    <>
      {step.state === 'active' && step.checklist.length > 0 && (
        <div
          className={classes.checklist}
          role="group"
          aria-label={t('plan/checklist', { step: local(step.name) })}
        >
          {step.checklist.map(({ text, isTicked }, i) => (
            <Checkbox
              key={text.en}
              size="xs"
              label={local(text)}
              checked={isTicked}
              onChange={() =>
                move.mutate({
                  name: 'tick',
                  ticked: isTicked ? ticked.filter((k) => k !== i) : [...ticked, i],
                })
              }
            />
          ))}
        </div>
      )}
      {reason === null ? (
        <div className={classes.actions}>
          {isRanked && <Link to={`/desk/ranking/${step.team!.id}`}>{t('plan/goAhead')}</Link>}
          {shown.map((name) => (
            <Button
              key={name}
              size="compact-xs"
              variant={name === 'finish' && isMine ? 'filled' : 'default'}
              aria-label={`${t(`plan/moves/${name}`)}: ${local(step.name)}`}
              loading={move.isPending && move.variables.name === name}
              onClick={() => start(name)}
            >
              {t(`plan/moves/${name}`)}
            </Button>
          ))}
          {more.length > 0 && (
            <Menu position="bottom-start">
              <Menu.Target>
                <Button
                  size="compact-xs"
                  variant="subtle"
                  aria-label={t('plan/more', { step: local(step.name) })}
                  loading={move.isPending && move.variables.name === 'redo'}
                >
                  …
                </Button>
              </Menu.Target>
              <Menu.Dropdown>
                {more.map((name) => (
                  <Menu.Item key={name} onClick={() => start(name)}>
                    {t(`plan/moves/${name}`)}
                  </Menu.Item>
                ))}
              </Menu.Dropdown>
            </Menu>
          )}
        </div>
      ) : (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            move.mutate({ name: 'leaveOut', reason }, { onSuccess: () => setReason(null) });
          }}
        >
          <TextInput
            size="xs"
            label={t('plan/why')}
            value={reason}
            autoFocus
            onChange={({ target }) => setReason(target.value)}
          />
          <Group gap={6} mt={4}>
            <Button size="compact-xs" type="submit" disabled={reason.trim() === ''} loading={move.isPending}>
              {t('plan/moves/leaveOut')}
            </Button>
            <Button size="compact-xs" variant="default" onClick={() => setReason(null)}>
              {t('common/cancel')}
            </Button>
          </Group>
        </form>
      )}
      {move.error && <ProblemNote error={move.error} />}
    </>
  );
}
