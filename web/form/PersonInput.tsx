import { usePeopleSearch } from '../api/queries';
import { NamedSelect, useTyped, type NamedProps } from './NamedSelect';

/** A colleague, found by a few letters. */
export function PersonInput(props: NamedProps) {
  const { q, ...typing } = useTyped(props.value);
  const { data = [], isPlaceholderData } = usePeopleSearch(q);
  const isCurrent = q !== '' && q === typing.typed && !isPlaceholderData;
  const options = data.map(({ id, name, title, site }) => ({
    value: id,
    label: `${name}, ${title}, ${site}`,
  }));
  return <NamedSelect {...props} {...typing} found={data} {...{ isCurrent }} options={options} />;
}
