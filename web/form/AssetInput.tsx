import { Select } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import type { Named } from '../../core/forms';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import { useWords } from '../messages/useWords';

type Props = {
  id: string;
  label: ReactNode;
  description?: ReactNode;
  error?: ReactNode;
  kind: string | undefined;
  forPerson: string | null;
  value: Named | null;
  onChange(value: Named | null): void;
};
const GROUPS = ['own', 'near', 'other'] as const;

/** A thing: one's own first, then those of where one works, then all. */
export function AssetInput({ kind, forPerson, value, onChange, ...shared }: Props) {
  const { t } = useWords();
  const [typed, setTyped] = useState(value?.name ?? '');
  const [q] = useDebouncedValue(typed === value?.name ? '' : typed, 120);
  const { data = [] } = useQuery({
    queryKey: ['assets', q, kind, forPerson],
    placeholderData: keepPreviousData,
    queryFn: () =>
      call(api.catalogue.assets, {
        query: { q, ...(kind && { kind }), ...(forPerson && { for: forPerson }) },
      }),
  });
  const isListed = data.some(({ id }) => id === value?.id);
  const groups = GROUPS.map((whose) => ({
    group: t(`form/whose/${whose}`),
    items: data.filter((each) => each.whose === whose).map(({ id, name }) => ({ value: id, label: name })),
  })).filter(({ items }) => items.length > 0);
  const chosen = value && !isListed ? [{ value: value.id, label: value.name }] : [];
  return (
    <Select
      {...shared}
      searchable
      clearable
      value={value?.id ?? null}
      searchValue={typed}
      onSearchChange={setTyped}
      filter={({ options }) => options}
      data={[...chosen, ...groups]}
      onChange={(id) => {
        const asset = data.find((candidate) => candidate.id === id);
        if (asset) onChange({ id: asset.id, name: asset.name });
        else if (id === null) onChange(null);
      }}
    />
  );
}
