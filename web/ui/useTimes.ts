import { useMemo } from 'react';
import { useMe } from '../api/queries';
import { useWords } from '../messages/useWords';
import { createTimes, type Times } from './times';

/** Instants and spans in the viewer's zone and language. */
export function useTimes(): Times {
  const { timeZone } = useMe();
  const { language, t } = useWords();
  return useMemo(() => createTimes({ timeZone, language, t }), [timeZone, language, t]);
}
