import { useSearchParams } from 'react-router';
import type { Scalar } from '../../../core/conditions';
import type { Stretch } from '../../../core/measures';
import { toStretch } from './stretches';

/** What is chosen in the charts of a board, by the chart. */
export type Chosen = Record<string, Scalar[]>;

/** What an address says is chosen; what cannot be read is nothing. */
export function readChosen(text: string | null): Chosen {
  try {
    const read: unknown = JSON.parse(text ?? '{}');
    if (typeof read !== 'object' || read === null) return {};
    return Object.fromEntries(
      Object.entries(read).flatMap(([id, values]) =>
        Array.isArray(values) && values.every((value) => value === null || typeof value !== 'object')
          ? [[id, values as Scalar[]]]
          : [],
      ),
    );
  } catch {
    return {};
  }
}

/** What is chosen once a value was chosen, or taken back. */
export function toggled(chosen: Chosen, id: string, key: Scalar): Chosen {
  const values = chosen[id] ?? [];
  const next = values.includes(key) ? values.filter((value) => value !== key) : [...values, key];
  const { [id]: _, ...others } = chosen;
  return next.length > 0 ? { ...others, [id]: next } : others;
}

/** What is chosen on a board and of which stretch it is, kept in its address. */
export function useChosen() {
  const [search, setSearch] = useSearchParams();
  const chosen = readChosen(search.get('chosen'));
  function set(name: string, value: string | null): void {
    setSearch(
      (before) => {
        const next = new URLSearchParams(before);
        if (value === null) next.delete(name);
        else next.set(name, value);
        return next;
      },
      { replace: true },
    );
  }
  const choose = (next: Chosen): void =>
    set('chosen', Object.keys(next).length > 0 ? JSON.stringify(next) : null);
  return {
    chosen,
    stretch: toStretch(search.get('stretch')),
    isWall: search.has('wall'),
    toggle: (id: string, key: Scalar) => choose(toggled(chosen, id, key)),
    clear: () => choose({}),
    setStretch: ({ last, unit }: Stretch) => set('stretch', `${last} ${unit}`),
    setWall: (isOn: boolean) => set('wall', isOn ? '1' : null),
  };
}
