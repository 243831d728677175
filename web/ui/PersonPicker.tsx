import { Select } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useState } from 'react';
import { usePeopleSearch } from '../api/queries';
import { onEnterTakeOnly } from './onlyHit';

type Props = {
  label: string;
  description?: string;
  placeholder?: string;
  size?: 'xs' | 'sm';
  onPick(person: { id: string; name: string }): void;
};

/** Finds a person by a few letters of their name and hands them over. */
export function PersonPicker({ label, description, placeholder, size = 'sm', onPick }: Props) {
  const [typed, setTyped] = useState('');
  const [q] = useDebouncedValue(typed, 120);
  const { data = [], isPlaceholderData } = usePeopleSearch(q);
  const pick = (person: { id: string; name: string }): void => {
    onPick(person);
    setTyped('');
  };
  return (
    <Select
      {...{ label, description, placeholder, size }}
      searchable
      value={null}
      searchValue={typed}
      onSearchChange={setTyped}
      filter={({ options }) => options}
      data={data.map(({ id, name, title, site }) => ({ value: id, label: `${name}, ${title}, ${site}` }))}
      onChange={(id) => {
        const person = data.find((candidate) => candidate.id === id);
        if (person) pick(person);
        else setTyped('');
      }}
      onKeyDown={onEnterTakeOnly(data, q !== '' && q === typed && !isPlaceholderData, pick)}
    />
  );
}
