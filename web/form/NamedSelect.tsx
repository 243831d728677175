import { Select, type SelectProps } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useState, type ReactNode } from 'react';
import type { Named } from '../../core/forms';
import { onEnterTakeOnly } from '../ui/onlyHit';

export type NamedProps = {
  id: string;
  label: ReactNode;
  description?: ReactNode;
  error?: ReactNode;
  value: Named | null;
  onChange(value: Named | null): void;
};

/** What is being typed to find one: nothing while the chosen one's name stands there. */
export function useTyped(value: Named | null) {
  const [typed, setTyped] = useState(value?.name ?? '');
  const [q] = useDebouncedValue(typed === value?.name ? '' : typed, 120);
  return { typed, setTyped, q };
}

type Props = NamedProps &
  Pick<ReturnType<typeof useTyped>, 'typed' | 'setTyped'> & {
    /** Those that were found, as they are shown. */
    found: Named[];
    /** Whether these were found for what stands in the field. */
    isCurrent: boolean;
    options: NonNullable<SelectProps['data']>;
  };

/** One of those that were found by a few letters, and shown once chosen. */
export function NamedSelect({
  value,
  onChange,
  typed,
  setTyped,
  found,
  isCurrent,
  options,
  ...shared
}: Props) {
  const isListed = found.some(({ id }) => id === value?.id);
  const chosen = value && !isListed ? [{ value: value.id, label: value.name }] : [];
  return (
    <Select
      {...shared}
      searchable
      clearable
      value={value?.id ?? null}
      searchValue={typed}
      onSearchChange={setTyped}
      filter={({ options: all }) => all}
      data={[...chosen, ...options]}
      onChange={(id) => {
        const one = found.find((candidate) => candidate.id === id);
        if (one) onChange({ id: one.id, name: one.name });
        else if (id === null) onChange(null);
      }}
      onKeyDown={onEnterTakeOnly(found, isCurrent, ({ id, name }) => onChange({ id, name }))}
    />
  );
}
