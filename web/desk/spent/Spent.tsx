import { Button, Group, NativeSelect, NumberInput, TextInput } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import type { SpentEntry } from '../../../contract/spent';
import type { Ticket } from '../../../contract/tickets';
import { judgeEstimate, SPENT_ON, type SpentOn } from '../../../core/spent';
import { call } from '../../api/call';
import { useNow } from '../../api/clock';
import { api } from '../../api/endpoints';
import { useMe } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useProblems } from '../../ui/useProblems';
import { useTimes } from '../../ui/useTimes';
import { toZonedText, zonedInstant } from '../../ui/zonedInstant';
import classes from '../ticket/DeskTicket.module.css';
import { useTimer } from './useTimer';
import { DayInput } from '../../ui/DayInput';

const MINUTE = 60_000;
/** As in '2026-12-04'. */
const DAY_LETTERS = 10;

/** Time by hand: new, or in place of what is there. */
function Form({ ticket, entry, onClose }: { ticket: Ticket; entry: SpentEntry | null; onClose(): void }) {
  const { t } = useWords();
  const now = useNow(60_000);
  const { renew } = useTimer();
  const [minutes, setMinutes] = useState<number>(entry?.minutes ?? 15);
  const [category, setCategory] = useState<SpentOn>(entry?.category ?? 'working');
  const [note, setNote] = useState(entry?.note ?? '');
  const { timeZone } = useMe();
  const today = toZonedText(now, timeZone).slice(0, DAY_LETTERS);
  const known = entry && toZonedText(entry.startedAt, timeZone);
  const [day, setDay] = useState(known?.slice(0, DAY_LETTERS) ?? today);
  /** Of today it ended just now; on another day it began when it did, or at noon. */
  const startedAt = (): number => {
    if (entry && day === known!.slice(0, DAY_LETTERS)) return entry.startedAt;
    if (day === today) return now - minutes * MINUTE;
    return zonedInstant(`${day}T${known?.slice(DAY_LETTERS + 1) ?? '12:00'}`, timeZone) ?? now;
  };
  const save = useMutation({
    mutationFn: (): Promise<unknown> => {
      const body = { minutes, category, note, startedAt: startedAt() };
      return entry
        ? call(api.spent.change, { params: { id: entry.id }, body })
        : call(api.spent.add, { params: { number: ticket.number }, body, key: nanoid() });
    },
    onSuccess: async () => {
      await renew();
      onClose();
    },
  });
  const problems = useProblems()(save.error);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <Group gap={6} align="flex-end" mt={6}>
        <NumberInput
          size="xs"
          w={84}
          label={t('spent/minutes')}
          value={minutes}
          error={problems.minutes}
          onChange={(value) => typeof value === 'number' && setMinutes(value)}
        />
        <DayInput
          size="xs"
          label={t('spent/day')}
          max={today}
          error={problems.startedAt}
          value={day}
          onChange={setDay}
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
        <Button size="xs" type="submit" loading={save.isPending}>
          {t('common/save')}
        </Button>
        <Button size="xs" variant="default" onClick={onClose}>
          {t('common/cancel')}
        </Button>
      </Group>
      {Object.keys(problems).length === 0 && <ProblemNote error={save.error} />}
    </form>
  );
}

function Estimate({ ticket, estimate, spent }: { ticket: Ticket; estimate: number | null; spent: number }) {
  const { t } = useWords();
  const times = useTimes();
  const { renew } = useTimer();
  const [minutes, setMinutes] = useState<number | null>(null);
  const [isOpen, setOpen] = useState(false);
  const save = useMutation({
    mutationFn: () => call(api.spent.estimate, { params: { number: ticket.number }, body: { minutes } }),
    onSuccess: async () => {
      await renew();
      setOpen(false);
    },
  });
  const judged = judgeEstimate(estimate, spent);
  return (
    <div className={classes.pair}>
      <span>{t('spent/estimate')}</span>
      <span>
        {judged
          ? t(judged.isOver ? 'spent/over' : 'spent/of', {
              share: Math.round(judged.share * 100),
              span: times.span(estimate!),
            })
          : t('common/none')}{' '}
        {ticket.rights.includes('work') && (
          <button type="button" className={classes.link} onClick={() => setOpen(!isOpen)}>
            <small>{t('spent/setEstimate')}</small>
          </button>
        )}
        {isOpen && (
          <Group gap={6} justify="flex-end">
            <NumberInput
              size="xs"
              w={90}
              aria-label={t('spent/estimate')}
              suffix=" min"
              value={minutes ?? estimate ?? ''}
              onChange={(value) => setMinutes(typeof value === 'number' ? value : null)}
            />
            <Button size="xs" loading={save.isPending} onClick={() => save.mutate()}>
              {t('common/save')}
            </Button>
          </Group>
        )}
        <ProblemNote error={save.error} />
      </span>
    </div>
  );
}

/** Time spent on a ticket: the timer, what was spent by whom, and the estimate. */
export function Spent({ ticket }: { ticket: Ticket }) {
  const { t } = useWords();
  const times = useTimes();
  const { timer, start, stop, renew } = useTimer();
  const now = useNow(30_000);
  const [editing, setEditing] = useState<SpentEntry | 'new' | null>(null);
  const { number } = ticket;
  const { data } = useQuery({
    queryKey: ['spent', number],
    queryFn: () => call(api.spent.list, { params: { number } }),
  });
  const remove = useMutation({
    mutationFn: (id: string) => call(api.spent.remove, { params: { id } }),
    onSettled: renew,
  });
  const isHere = timer?.number === number;
  return (
    <section aria-label={t('spent/title')}>
      <h2>{t('spent/title')}</h2>
      <div className={classes.pair}>
        <span>{t('spent/soFar')}</span>
        <b>{data ? times.span(data.minutes) : '…'}</b>
      </div>
      {data && <Estimate ticket={ticket} estimate={data.estimate} spent={data.minutes} />}
      <ul className={classes.likes}>
        {data?.entries.map((entry) => (
          <li key={entry.id}>
            <small>
              <b>
                {entry.minutes === null
                  ? t('spent/now', { span: times.span((now - entry.startedAt) / MINUTE) })
                  : times.span(entry.minutes)}
              </b>{' '}
              <bdi>{entry.person?.name}</bdi> · {t(`spent/on/${entry.category}`)}
              {entry.isByHand && ` · ${t('spent/byHand')}`}
              {entry.note && (
                <>
                  {' · '}
                  <bdi>{entry.note}</bdi>
                </>
              )}
              {entry.isMine && entry.minutes !== null && (
                <>
                  {' '}
                  <button type="button" className={classes.link} onClick={() => setEditing(entry)}>
                    {t('spent/edit')}
                  </button>{' '}
                  <button type="button" className={classes.link} onClick={() => remove.mutate(entry.id)}>
                    {t('spent/remove')}
                  </button>
                </>
              )}
            </small>
          </li>
        ))}
      </ul>
      <Group gap={6}>
        {!isHere ? (
          <Button
            size="compact-sm"
            variant="default"
            loading={start.isPending}
            onClick={() => start.mutate(number)}
          >
            {t('spent/start')}
          </Button>
        ) : (
          !timer.isLeftOn && (
            <Button
              size="compact-sm"
              variant="default"
              loading={stop.isPending}
              onClick={() => stop.mutate({})}
            >
              {t('spent/stop')}
            </Button>
          )
        )}
        <Button size="compact-sm" variant="subtle" onClick={() => setEditing('new')}>
          {t('spent/add')}
        </Button>
      </Group>
      <ProblemNote error={start.error ?? remove.error} />
      {editing && (
        <Form
          key={editing === 'new' ? 'new' : editing.id}
          ticket={ticket}
          entry={editing === 'new' ? null : editing}
          onClose={() => setEditing(null)}
        />
      )}
    </section>
  );
}
