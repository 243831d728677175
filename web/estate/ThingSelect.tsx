import { Select } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { ThingCard } from '../../contract/estate';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import { useWords } from '../messages/useWords';
import { onEnterTakeOnly } from '../ui/onlyHit';

/** What tells a thing from others of a like name. */
const factsOf = ({ tag, holder, site, vessel }: ThingCard): string =>
  [tag, holder?.name, vessel && `MV ${vessel}`, site?.name].filter(Boolean).join(' · ');

/**
 * Finds a thing by a few letters of its name, tag or number, and hands it over.
 * @param holderId whose things are offered before anything is typed
 */
export function ThingSelect({
  label,
  placeholder,
  holderId,
  except = [],
  onPick,
}: {
  label: string;
  placeholder?: string;
  holderId?: string;
  except?: string[];
  onPick(thing: ThingCard): void;
}) {
  const { local } = useWords();
  const [typed, setTyped] = useState('');
  const [q] = useDebouncedValue(typed.trim(), 120);
  const { data, isPlaceholderData } = useQuery({
    queryKey: ['things', 'choices', q, holderId],
    placeholderData: keepPreviousData,
    queryFn: () =>
      call(api.estate.list, { query: { q, ...(q === '' && holderId !== undefined && { holderId }) } }),
  });
  const found = (data?.rows ?? []).filter(({ id }) => !except.includes(id));
  const pick = (thing: ThingCard): void => {
    onPick(thing);
    setTyped('');
  };
  return (
    <Select
      {...{ label, ...(placeholder !== undefined && { placeholder }) }}
      size="xs"
      searchable
      value={null}
      searchValue={typed}
      onSearchChange={setTyped}
      filter={({ options }) => options}
      data={found.map((thing) => ({
        value: thing.id,
        label: [thing.name, local(thing.kind), factsOf(thing)].filter(Boolean).join(', '),
      }))}
      onChange={(id) => {
        const thing = found.find((candidate) => candidate.id === id);
        if (thing) pick(thing);
        else setTyped('');
      }}
      onKeyDown={onEnterTakeOnly(found, q !== '' && q === typed.trim() && !isPlaceholderData, pick)}
    />
  );
}
