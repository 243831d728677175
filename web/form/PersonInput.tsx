import { Select } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useState, type ReactNode } from 'react';
import type { Named } from '../../core/forms';
import { usePeopleSearch } from '../api/queries';

type Props = {
  id: string;
  label: ReactNode;
  description?: ReactNode;
  error?: ReactNode;
  value: Named | null;
  onChange(value: Named | null): void;
};

/** A colleague, found by a few letters, and shown once chosen. */
export function PersonInput({ value, onChange, ...shared }: Props) {
  const [typed, setTyped] = useState(value?.name ?? '');
  const [q] = useDebouncedValue(typed === value?.name ? '' : typed, 120);
  const { data = [] } = usePeopleSearch(q);
  const found = data.map(({ id, name, title, site }) => ({ value: id, label: `${name}, ${title}, ${site}` }));
  const chosen =
    value && !found.some((each) => each.value === value.id) ? [{ value: value.id, label: value.name }] : [];
  return (
    <Select
      {...shared}
      searchable
      clearable
      value={value?.id ?? null}
      searchValue={typed}
      onSearchChange={setTyped}
      filter={({ options }) => options}
      data={[...chosen, ...found]}
      onChange={(id) => {
        const person = data.find((candidate) => candidate.id === id);
        if (person) onChange({ id: person.id, name: person.name });
        else if (id === null) onChange(null);
      }}
    />
  );
}
