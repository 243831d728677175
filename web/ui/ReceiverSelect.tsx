import { Select } from '@mantine/core';
import { useTeams } from '../api/queries';
import { useWords } from '../messages/useWords';

/** To whom work goes: a team, or a person of one. */
export type Receiver = { teamId: string; assigneeId: string | null };

const toValue = ({ teamId, assigneeId }: Receiver): string => JSON.stringify([teamId, assigneeId]);
function fromValue(value: string): Receiver {
  const [teamId, assigneeId] = JSON.parse(value) as [string, string | null];
  return { teamId, assigneeId };
}

type Props = {
  label: string;
  error?: string | undefined;
  size?: 'xs' | 'sm';
  /** The teams whose people are offered by name, the first one's first. */
  peopleOf: string[];
  /** Whether it may also go back to nobody of the first of these teams. */
  mayBeNobody?: boolean;
  isInDialog?: boolean;
  value: Receiver | null;
  onChange(receiver: Receiver): void;
};

/** Colleagues and teams in one list, found by a few letters. */
export function ReceiverSelect({
  label,
  error,
  size = 'sm',
  peopleOf,
  mayBeNobody = false,
  isInDialog = false,
  value,
  onChange,
}: Props) {
  const { t, local } = useWords();
  const { data: teams = [] } = useTeams();
  const own = peopleOf.flatMap((id) => teams.find((team) => team.id === id) ?? []);
  const seen = new Set<string>();
  const people = own.flatMap((team) =>
    team.members
      .filter(({ id }) => !seen.has(id) && Boolean(seen.add(id)))
      .map(({ id, name }) => ({ value: toValue({ teamId: team.id, assigneeId: id }), label: name })),
  );
  const nobody =
    mayBeNobody && own[0]
      ? [{ value: toValue({ teamId: own[0].id, assigneeId: null }), label: t('lists/nobody') }]
      : [];
  const others = teams
    .filter(({ id }) => !mayBeNobody || id !== own[0]?.id)
    .map(({ id, name }) => ({ value: toValue({ teamId: id, assigneeId: null }), label: local(name) }));
  // Someone of a team whose people are not offered is shown by that team.
  const isOffered = value !== null && [...people, ...nobody].some((each) => each.value === toValue(value));
  const shown = value && (isOffered ? value : { ...value, assigneeId: null });
  return (
    <Select
      data-autofocus
      {...{ label, error, size }}
      searchable
      allowDeselect={false}
      placeholder={t('common/choose')}
      {...(isInDialog && { defaultDropdownOpened: true, comboboxProps: { withinPortal: false } })}
      data={[
        { group: t('page/people'), items: [...nobody, ...people] },
        { group: t('lists/teams'), items: others },
      ]}
      value={shown && toValue(shown)}
      onChange={(chosen) => chosen !== null && onChange(fromValue(chosen))}
    />
  );
}
