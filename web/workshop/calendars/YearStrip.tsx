import { ActionIcon, Button, TextInput } from '@mantine/core';
import { IconChevronLeft, IconChevronRight } from '@tabler/icons-react';
import { useState, type KeyboardEvent } from 'react';
import { WEEKDAYS, type CalendarSpec } from '../../../core/calendar';
import { useWords } from '../../messages/useWords';
import { LOCALES } from '../../../core/forms';
import { fromHoursText, toHoursText } from './hoursText';
import classes from './YearStrip.module.css';
import { dateFormat } from '../../ui/dateFormat';

type Exceptions = CalendarSpec['exceptions'];
type Props = {
  spec: CalendarSpec;
  firstYear: number;
  isLocked: boolean;
  onChange(exceptions: Exceptions): void;
};

const DAY_MS = 86_400_000;
const isoOf = (at: number): string => new Date(at).toISOString().slice(0, 10);
/** 0 for Monday. */
const weekdayOf = (at: number): number => (new Date(at).getUTCDay() + 6) % 7;

function daysOfMonth(year: number, month: number): number[] {
  const days: number[] = [];
  for (let at = Date.UTC(year, month, 1); new Date(at).getUTCMonth() === month; at += DAY_MS) days.push(at);
  return days;
}

/** A year, a month a line, weekdays under each other; the days that are not as the week says stand out. */
export function YearStrip({ spec, firstYear, isLocked, onChange }: Props) {
  const { t, language } = useWords();
  const [year, setYear] = useState(firstYear);
  const [chosen, setChosen] = useState<string | null>(null);
  const [pointed, setPointed] = useState<string | null>(null);
  const byDate = new Map(spec.exceptions.map((exception) => [exception.date, exception]));
  const format = (options: Intl.DateTimeFormatOptions) =>
    dateFormat(LOCALES[language], { timeZone: 'UTC', ...options });
  const [monthName, dayName] = [
    format({ month: 'short' }),
    format({ weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' }),
  ];
  const count = spec.exceptions.filter(({ date }) => date.startsWith(`${year}-`)).length;
  const focused = pointed ?? `${year}-01-01`;

  function onKeyDown(event: KeyboardEvent): void {
    const steps: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -7, ArrowDown: 7 };
    const step = steps[event.key];
    if (step === undefined) return;
    event.preventDefault();
    const next = isoOf(Date.parse(focused) + step * DAY_MS);
    if (!next.startsWith(`${year}-`)) return;
    setPointed(next);
    document.querySelector<HTMLElement>(`[data-date="${next}"]`)?.focus();
  }

  function stateOf(at: number): 'closed' | 'own' | null {
    const exception = byDate.get(isoOf(at));
    if (!exception) return null;
    return exception.windows.length === 0 ? 'closed' : 'own';
  }

  return (
    <>
      <div className={classes.nav}>
        <ActionIcon
          variant="default"
          size="sm"
          aria-label={t('workshop/calendar/yearBefore')}
          onClick={() => setYear(year - 1)}
        >
          <IconChevronLeft size={15} />
        </ActionIcon>
        <strong>{year}</strong>
        <ActionIcon
          variant="default"
          size="sm"
          aria-label={t('workshop/calendar/yearAfter')}
          onClick={() => setYear(year + 1)}
        >
          <IconChevronRight size={15} />
        </ActionIcon>
        <span>{t('workshop/calendar/exceptions', { count, year })}</span>
      </div>
      <div
        className={classes.year}
        role="group"
        aria-label={`${t('workshop/calendar/year')} ${year}`}
        onKeyDown={onKeyDown}
      >
        {Array.from({ length: 12 }, (_, month) => {
          const days = daysOfMonth(year, month);
          return [
            <span key={`m${month}`} className={classes.month} style={{ gridRow: month + 1 }}>
              {monthName.format(days[0])}
            </span>,
            ...days.map((at, i) => {
              const date = isoOf(at);
              const state = stateOf(at);
              const isFree = (spec.weekly[WEEKDAYS[weekdayOf(at)]!] ?? []).length === 0;
              const name = byDate.get(date)?.name;
              const words = t(
                `workshop/calendar/${state === 'closed' ? 'dayClosed' : state === 'own' ? 'dayOwn' : 'dayUsual'}`,
              );
              return (
                <button
                  key={date}
                  type="button"
                  className={classes.day}
                  data-date={date}
                  data-exception={state ?? undefined}
                  data-free={isFree || undefined}
                  aria-pressed={chosen === date}
                  aria-label={t('workshop/calendar/dayLabel', {
                    day: dayName.format(at),
                    state: name ?? words,
                  })}
                  title={name}
                  tabIndex={date === focused ? 0 : -1}
                  style={{ gridRow: month + 1, gridColumn: weekdayOf(days[0]!) + i + 2 }}
                  onFocus={() => setPointed(date)}
                  onClick={() => setChosen(date)}
                >
                  {i + 1}
                </button>
              );
            }),
          ];
        })}
      </div>
      {chosen && (
        <DayForm
          key={chosen}
          title={dayName.format(Date.parse(chosen))}
          exception={byDate.get(chosen) ?? null}
          isLocked={isLocked}
          onSet={(change) => {
            const others = spec.exceptions.filter(({ date }) => date !== chosen);
            const all = change ? [...others, { date: chosen, ...change }] : others;
            onChange(all.sort((a, b) => (a.date < b.date ? -1 : 1)));
          }}
        />
      )}
    </>
  );
}

type Change = Omit<Exceptions[number], 'date'>;

/** One date: what it is called, and its own hours or none. */
function DayForm({
  title,
  exception,
  isLocked,
  onSet,
}: {
  title: string;
  exception: Exceptions[number] | null;
  isLocked: boolean;
  onSet(change: Change | null): void;
}) {
  const { t } = useWords();
  const [name, setName] = useState(exception?.name ?? '');
  const [hours, setHours] = useState(toHoursText(exception?.windows ?? []));
  const windows = fromHoursText(hours);
  return (
    <form
      className={classes.chosen}
      onSubmit={(event) => {
        event.preventDefault();
        if (windows) onSet({ ...(name.trim() && { name: name.trim() }), windows });
      }}
    >
      <strong style={{ minWidth: 190 }}>{title}</strong>
      <TextInput
        size="xs"
        label={t('workshop/calendar/exceptionName')}
        value={name}
        readOnly={isLocked}
        onChange={({ target }) => setName(target.value)}
      />
      <TextInput
        size="xs"
        label={t('workshop/calendar/exceptionHours')}
        value={hours}
        readOnly={isLocked}
        error={windows === null && t('workshop/fields/malformedTime')}
        onChange={({ target }) => setHours(target.value)}
      />
      {!isLocked && (
        <>
          <Button size="xs" type="submit">
            {t('workshop/calendar/exceptionSet')}
          </Button>
          {exception && (
            <Button size="xs" variant="default" onClick={() => onSet(null)}>
              {t('workshop/calendar/exceptionUsual')}
            </Button>
          )}
        </>
      )}
    </form>
  );
}
