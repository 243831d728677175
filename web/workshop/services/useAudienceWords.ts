import { useQuery } from '@tanstack/react-query';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';

/** The departments and jobs that there are. */
export function useAudienceWords(): { departments: string[]; titles: string[] } {
  const { data } = useQuery({
    queryKey: ['audienceWords'],
    staleTime: 600_000,
    queryFn: () => call(api.services.audienceWords),
  });
  return data ?? { departments: [], titles: [] };
}
