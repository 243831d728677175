import { Text } from '@mantine/core';
import { LOCALES } from '../../core/forms';
import { useWords } from '../messages/useWords';
import { dateFormat } from '../ui/dateFormat';
import { useTimes } from '../ui/useTimes';
import classes from './Estate.module.css';

const DAY_MS = 86_400_000;
const SOON_DAYS = 90;

/** A day of the calendar, with its year: 28 May 2026. */
export function useDayWords(): (day: string) => string {
  const { language } = useWords();
  const options = { timeZone: 'UTC', day: 'numeric', month: 'short', year: 'numeric' } as const;
  return (day) => dateFormat(LOCALES[language], options).format(Date.parse(day));
}

/** A day of the calendar, with its year. */
export function Day({ day }: { day: string }) {
  return useDayWords()(day);
}

/** Until when something is lent, where it is. */
export function LentUntil({ at, now }: { at: number | null; now: number }) {
  const { t } = useWords();
  const times = useTimes();
  if (at === null) return null;
  const isOver = at < now;
  return (
    <Text size="xs" className={isOver ? classes.past : classes.short}>
      {t(isOver ? 'estate/lentOver' : 'estate/lentUntil', { when: times.day(at) })}
    </Text>
  );
}

/** The last day of a warranty, and whether it is over or soon will be. */
export function WarrantyUntil({ day, now }: { day: string | null; now: number }) {
  const { t } = useWords();
  const say = useDayWords();
  if (day === null) return null;
  const left = (Date.parse(`${day}T23:59:59Z`) - now) / DAY_MS;
  const when = say(day);
  if (left < 0) return <span className={classes.quiet}>{t('estate/warrantyOver', { when })}</span>;
  return <span className={left < SOON_DAYS ? classes.short : undefined}>{when}</span>;
}
