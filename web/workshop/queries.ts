import { useQuery } from '@tanstack/react-query';
import { call } from '../api/call';
import { api } from '../api/endpoints';

export const useCalendarList = () =>
  useQuery({ queryKey: ['calendars'], staleTime: 300_000, queryFn: () => call(api.calendars.list) });

export const useTargets = () => useQuery({ queryKey: ['targets'], queryFn: () => call(api.targets.list) });

export const useHolidayPlaces = (isOpen: boolean) =>
  useQuery({
    queryKey: ['holidayPlaces'],
    enabled: isOpen,
    staleTime: Infinity,
    queryFn: () => call(api.calendars.holidayPlaces),
  });
