import { Button, Group, Select } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useCallback, useState } from 'react';
import type { Due, Ticket } from '../../../contract/tickets';
import { call } from '../../api/call';
import { useNow } from '../../api/clock';
import { api } from '../../api/endpoints';
import { useMe, useRenew } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { LOCALES } from '../../../core/forms';
import { ProblemNote } from '../../ui/ProblemNote';
import { useProblems } from '../../ui/useProblems';
import { useTimes } from '../../ui/useTimes';
import { toZonedText, zonedInstant } from '../../ui/zonedInstant';
import classes from './DeskTicket.module.css';
import { dateFormat } from '../../ui/dateFormat';
import { DayInput } from '../../ui/DayInput';
import { TimeInput } from '../../ui/TimeInput';

const HOUR = 3_600_000;
const BEFORE = { remindNone: null, remindHour: HOUR, remindDay: 24 * HOUR } as const;
type Before = keyof typeof BEFORE;

/** A due instant set by hand, in words: a bare date is due at its end. */
export function useDueWords(): (due: Due) => string {
  const { t, language } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  return useCallback(
    ({ at, date, standing }: Due) => {
      const day = (text: string): string =>
        dateFormat(LOCALES[language], {
          ...{ weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' },
        }).format(Date.parse(text));
      const when = date ? t('due/wholeDay', { day: day(date) }) : times.when(at, now);
      return t(`due/${standing}`, { when });
    },
    [t, language, times, now],
  );
}

/** When someone said that a ticket is due, and setting it. */
export function DueByHand({ ticket }: { ticket: Ticket }) {
  const { t } = useWords();
  const now = useNow(60_000);
  const times = useTimes();
  const words = useDueWords();
  const renew = useRenew();
  const [isEditing, setEditing] = useState(false);
  const { due, number, version, rights } = ticket;
  const change = useMutation({
    mutationFn: (facts: { due: { at: number } | { date: string } | null; remindAt: number | null }) =>
      call(api.tickets.change, { params: { number }, body: { version, ...facts }, key: nanoid() }),
    onSuccess: () => setEditing(false),
    onSettled: () => renew(number),
  });
  const mayWork = rights.includes('work');
  const isBad = due?.standing === 'past' || due?.standing === 'late';
  return (
    <div className={classes.due}>
      <div className={classes.pair}>
        <span>{t('due/title')}</span>
        <span data-late={isBad || undefined}>
          {due ? words(due) : t('common/none')}
          {due?.remindAt != null && (
            <small>{t('due/reminder', { when: times.when(due.remindAt, now) })}</small>
          )}
        </span>
      </div>
      {mayWork && !isEditing && (
        <Group gap={10} justify="flex-end">
          <button type="button" className={classes.link} onClick={() => setEditing(true)}>
            <small>{t(due ? 'due/change' : 'due/set')}</small>
          </button>
          {due && (
            <button
              type="button"
              className={classes.link}
              onClick={() => change.mutate({ due: null, remindAt: null })}
            >
              <small>{t('due/clear')}</small>
            </button>
          )}
        </Group>
      )}
      {isEditing && (
        <DueForm
          {...{ due, now }}
          isSaving={change.isPending}
          error={change.error}
          onSave={change.mutate}
          onClose={() => setEditing(false)}
        />
      )}
    </div>
  );
}

type FormProps = {
  due: Due | null;
  now: number;
  isSaving: boolean;
  error: unknown;
  onSave(facts: { due: { at: number } | { date: string }; remindAt: number | null }): void;
  onClose(): void;
};

function DueForm({ due, now, isSaving, error, onSave, onClose }: FormProps) {
  const { t } = useWords();
  const { timeZone } = useMe();
  const first = toZonedText(due?.at ?? now + 24 * HOUR, timeZone);
  const [date, setDate] = useState(due?.date ?? first.slice(0, 10));
  const [time, setTime] = useState(due && !due.date ? first.slice(11) : '');
  const [before, setBefore] = useState<Before>('remindNone');
  const problems = useProblems()(error);
  const end = zonedInstant(`${date}T${time || '23:59'}`, timeZone);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (end === null) return;
        const lead = BEFORE[before];
        onSave({ due: time ? { at: end } : { date }, remindAt: lead === null ? null : end - lead });
      }}
    >
      <Group gap={6} align="flex-end" mt={4} grow>
        <DayInput size="xs" label={t('due/date')} value={date} onChange={setDate} />
        <TimeInput size="xs" label={t('due/time')} value={time} onChange={setTime} />
      </Group>
      <Group gap={6} align="flex-end" mt={6}>
        <Select
          size="xs"
          style={{ flex: 1 }}
          label={t('due/remind')}
          allowDeselect={false}
          data={(Object.keys(BEFORE) as Before[]).map((value) => ({ value, label: t(`due/${value}`) }))}
          value={before}
          error={problems.remindAt}
          onChange={(value) => setBefore(value as Before)}
        />
        <Button size="xs" type="submit" disabled={end === null} loading={isSaving}>
          {t('common/save')}
        </Button>
        <Button size="xs" variant="default" onClick={onClose}>
          {t('common/cancel')}
        </Button>
      </Group>
      {!problems.remindAt && <ProblemNote error={error} />}
    </form>
  );
}
