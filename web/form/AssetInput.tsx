import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import { useWords } from '../messages/useWords';
import { NamedSelect, useTyped, type NamedProps } from './NamedSelect';

const GROUPS = ['own', 'near', 'other'] as const;
type Props = NamedProps & { kind: string | undefined; forPerson: string | null };

/** A thing: one's own first, then those of where one works, then all. */
export function AssetInput({ kind, forPerson, ...props }: Props) {
  const { t } = useWords();
  const { q, ...typing } = useTyped(props.value);
  const { data = [], isPlaceholderData } = useQuery({
    queryKey: ['assets', q, kind, forPerson],
    placeholderData: keepPreviousData,
    queryFn: () =>
      call(api.estate.choices, {
        query: { q, ...(kind && { kind }), ...(forPerson && { for: forPerson }) },
      }),
  });
  const isCurrent = q !== '' && q === typing.typed && !isPlaceholderData;
  const groups = GROUPS.map((whose) => ({
    group: t(`form/whose/${whose}`),
    items: data.filter((each) => each.whose === whose).map(({ id, name }) => ({ value: id, label: name })),
  })).filter(({ items }) => items.length > 0);
  return <NamedSelect {...props} {...typing} found={data} {...{ isCurrent }} options={groups} />;
}
