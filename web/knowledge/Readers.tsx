import { MultiSelect, NativeSelect } from '@mantine/core';
import type { ArticleBody } from '../../contract/knowledge';
import { useSites, useTeams } from '../api/queries';
import { useWords } from '../messages/useWords';

type Kind = 'open' | 'all' | 'site' | 'team' | 'agents';
type Props = {
  draft: ArticleBody;
  isFixed: boolean;
  onChange(change: Pick<ArticleBody, 'isOpen' | 'audience'>): void;
};

function kindOf({ isOpen, audience }: ArticleBody): Kind {
  if (isOpen) return 'open';
  const [part] = audience;
  if (!part) return 'all';
  return part.by === 'agent' ? 'agents' : part.by === 'site' ? 'site' : 'team';
}

/** Who reads an article, said where it is set. */
export function Readers({ draft, isFixed, onChange }: Props) {
  const { t, local } = useWords();
  const { data: sites = [] } = useSites();
  const { data: teams = [] } = useTeams();
  const kind = kindOf(draft);
  const [part] = draft.audience;
  const chosen = part && 'in' in part ? part.in : [];
  function choose(next: Kind): void {
    const audience: ArticleBody['audience'] =
      next === 'agents'
        ? [{ by: 'agent' }]
        : next === 'site' || next === 'team'
          ? [{ by: next, in: [] }]
          : [];
    onChange({ isOpen: next === 'open', audience });
  }
  return (
    <>
      <NativeSelect
        size="xs"
        label={t('knowledge/readers')}
        disabled={isFixed}
        value={kind}
        data={[
          { value: 'open', label: t('knowledge/readersOpen') },
          { value: 'all', label: t('knowledge/readersAll') },
          { value: 'site', label: t('knowledge/readersSite') },
          { value: 'team', label: t('knowledge/readersTeam') },
          { value: 'agents', label: t('knowledge/readersAgents') },
        ]}
        onChange={({ target }) => choose(target.value as Kind)}
      />
      {(kind === 'site' || kind === 'team') && (
        <MultiSelect
          size="xs"
          searchable
          label={t(kind === 'site' ? 'knowledge/sites' : 'knowledge/teams')}
          readOnly={isFixed}
          value={chosen}
          data={
            kind === 'site'
              ? sites.map(({ id, name }) => ({ value: id, label: name }))
              : teams.map(({ id, name }) => ({ value: id, label: local(name) }))
          }
          onChange={(ids) => onChange({ isOpen: false, audience: [{ by: kind, in: ids }] })}
        />
      )}
    </>
  );
}
