import { Button, Group, NativeSelect, NumberInput, Popover, Stack, TextInput } from '@mantine/core';
import { useState } from 'react';
import { Link } from 'react-router';
import '../../messages/listsWords';
import { SPENT_ON, readTimer, type SpentOn } from '../../../core/spent';
import { useNow } from '../../api/clock';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useProblems } from '../../ui/useProblems';
import { useTimes } from '../../ui/useTimes';
import { useTimer } from './useTimer';

/** The running timer, wherever one is: since when, on what, and stopping it. One that was left on asks for the truth. */
export function TimerBar() {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(15_000);
  const { timer, stop } = useTimer();
  const [isOpen, setOpen] = useState(false);
  const [minutes, setMinutes] = useState<number | null>(null);
  const [category, setCategory] = useState<SpentOn>('working');
  const [note, setNote] = useState('');
  const problems = useProblems()(stop.error);
  if (!timer) return null;
  const read = readTimer(timer.startedAt, now);
  return (
    <Popover opened={isOpen} onChange={setOpen} width={300} withArrow trapFocus>
      <Popover.Target>
        <Button size="compact-sm" variant="default" onClick={() => setOpen(!isOpen)}>
          {read.isLeftOn ? t('spent/leftOn') : t('spent/running', { span: times.span(read.minutes) })}
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <form
          onSubmit={(event) => {
            event.preventDefault();
            stop.mutate(
              { category, note, ...(minutes !== null && { minutes }) },
              {
                onSuccess: () => {
                  setOpen(false);
                  setMinutes(null);
                  setNote('');
                },
              },
            );
          }}
        >
          <Stack gap={8}>
            <Link to={`/desk/everything/${timer.number}`}>
              {timer.number} <bdi>{timer.title}</bdi>
            </Link>
            {read.isLeftOn && <small>{t('spent/leftOnLead', { when: times.full(timer.startedAt) })}</small>}
            <NumberInput
              size="xs"
              label={t('spent/minutes')}
              min={1}
              placeholder={read.isLeftOn ? '' : String(read.minutes)}
              value={minutes ?? ''}
              error={problems.minutes}
              onChange={(value) => setMinutes(typeof value === 'number' ? value : null)}
            />
            <NativeSelect
              size="xs"
              label={t('spent/category')}
              value={category}
              data={SPENT_ON.map((value) => ({ value, label: t(`spent/on/${value}`) }))}
              onChange={({ target }) => setCategory(target.value as SpentOn)}
            />
            <TextInput
              size="xs"
              label={t('spent/note')}
              value={note}
              onChange={({ target }) => setNote(target.value)}
            />
            {!problems.minutes && <ProblemNote error={stop.error} />}
            <Group>
              <Button size="xs" type="submit" loading={stop.isPending}>
                {t('spent/stop')}
              </Button>
            </Group>
          </Stack>
        </form>
      </Popover.Dropdown>
    </Popover>
  );
}
