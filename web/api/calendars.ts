import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { api } from './endpoints';
import { compileCalendar, type CompiledCalendar } from '../../core/calendar';
import { call } from './call';

/** The working calendars, compiled once. */
export function useCalendars(): Record<string, CompiledCalendar> | null {
  const { data } = useQuery({
    queryKey: ['calendars'],
    staleTime: 300_000,
    queryFn: () => call(api.calendars.list),
  });
  return (
    useMemo(
      () => data && Object.fromEntries(data.map(({ id, spec }) => [id, compileCalendar(spec)])),
      [data],
    ) ?? null
  );
}
