import { useEffect, useRef, useState } from 'react';
import type { ThingMap } from '../../../contract/estate';
import type { Arrangement, Fallen, Spot } from '../../../core/estate';
import { reckon, type Answer, type Question } from './reckon';

type Asked = Question extends infer One ? (One extends Question ? Omit<One, 'id'> : never) : never;

/** Asks a worker; where there are none, the page reckons itself. The last question of a kind is the one that counts. */
function useWorker(): (question: Asked) => Promise<Answer> {
  const worker = useRef<Worker | null>(null);
  const next = useRef(0);
  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = null;
    },
    [],
  );
  const [ask] = useState(() => (question: Asked): Promise<Answer> => {
    const id = ++next.current;
    const numbered = { ...question, id };
    if (typeof Worker === 'undefined') return Promise.resolve(reckon(numbered));
    worker.current ??= new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' });
    const asked = worker.current;
    return new Promise((resolve) => {
      const hear = ({ data }: MessageEvent<Answer>): void => {
        if (data.id !== id) return;
        asked.removeEventListener('message', hear);
        resolve(data);
      };
      asked.addEventListener('message', hear);
      asked.postMessage(numbered);
    });
  });
  return ask;
}

/** Where things stand on the map, and what falls with the one that is pointed at. */
export function useReckoned(
  map: ThingMap | undefined,
  { by, centre, pointed }: { by: Arrangement; centre: string; pointed: string | null },
): { spots: Map<string, Spot> | null; fallen: Fallen | null } {
  const ask = useWorker();
  const [spots, setSpots] = useState<Map<string, Spot> | null>(null);
  const [found, setFound] = useState<{ thing: string; fallen: Fallen } | null>(null);
  useEffect(() => {
    if (!map) return undefined;
    let isCurrent = true;
    void ask({ ask: 'arrange', map, by, centre }).then((answer) => {
      if (isCurrent) setSpots(new Map(answer.spots));
    });
    return () => void (isCurrent = false);
  }, [ask, map, by, centre]);
  useEffect(() => {
    if (!map || pointed === null) return undefined;
    let isCurrent = true;
    void ask({ ask: 'fails', map, thing: pointed }).then(({ fallen }) => {
      if (isCurrent && fallen) setFound({ thing: pointed, fallen });
    });
    return () => void (isCurrent = false);
  }, [ask, map, pointed]);
  return { spots, fallen: found !== null && found.thing === pointed ? found.fallen : null };
}
