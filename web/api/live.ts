import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import type { LiveEvent, WritingEvent } from '../../contract/live';
import { noteChange } from './changes';
import { follow } from './follow';
import { gather } from './gather';
import { renewSoon } from './renew';
import { hearWriting } from './writing';
import { setReachable } from './reachable';

/** Queries that a change of how work is timed may change. */
const SETTINGS = [
  'calendars',
  'targets',
  'teams',
  'sites',
  'ticket',
  'things',
  'notices',
  'works',
  'problems',
];
/** Queries that an event of any ticket may change. */
const SHARED = ['mine', 'asks', 'notifications'];
/** What is shown of a thing says which tickets are about it. */
const ABOUT_THINGS = [
  ['things', 'one'],
  ['things', 'mine'],
] as const;
/** Lists follow single tickets by themselves; what else may change them has them read anew. */
const LISTS = ['worklist', 'listFigures'];

/** Follows the live stream and renews what it touches; answers the last change for showing. */
export function useLive(meId: string): LiveEvent | null {
  const client = useQueryClient();
  const [last, setLast] = useState<LiveEvent | null>(null);
  useEffect(() => {
    const renew = (keys: string[]): void => keys.forEach((key) => renewSoon(client, [key]));
    const show = gather<'last', LiveEvent>((events) => setLast(events.get('last') ?? null));
    const renewAll = (): void => renew([...SHARED, ...SETTINGS, ...LISTS]);
    return follow(
      '/api/v1/live',
      (source) => {
        source.onmessage = ({ data }) => {
          const event = JSON.parse(data as string) as LiveEvent;
          show('last', event);
          renew(SHARED);
          if (event.number === null) renew([...SETTINGS, ...LISTS]);
          else {
            noteChange(event.number, { isOwn: event.actorId === meId });
            renewSoon(client, ['ticket', event.number]);
            for (const key of ABOUT_THINGS) renewSoon(client, key);
          }
        };
        source.addEventListener('writing', ({ data }) =>
          hearWriting(JSON.parse(String(data)) as WritingEvent),
        );
        source.addEventListener('anew', renewAll);
        source.onopen = () => setReachable(true);
      },
      renewAll,
    );
  }, [client, meId]);
  return last;
}
